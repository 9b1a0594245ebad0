// A job's sheet: a first page for the engine's owner, then everything behind it. Data come in as JSON; drawings and pictures as files.
#let d = json(bytes(sys.inputs.data))
#let ink = rgb("#191a1c")
#let violet = rgb("#3b2f93")
#let heat = rgb("#a33b16")
#let brass = rgb("#7a5b0a")
#let quiet = rgb("#59554b")
#let rule = rgb("#d9d2c1")
#set document(title: d.title, author: d.shop)
#set page(
  paper: d.paper,
  margin: (x: 16mm, top: 16mm, bottom: 20mm),
  footer: context {
    let last = counter(page).final().first()
    set text(7.5pt, fill: quiet)
    line(length: 100%, stroke: 0.6pt + ink)
    if counter(page).get().first() == 1 {
      grid(columns: (1fr, auto), column-gutter: 8pt, [#d.closing#if d.key != "" [ #linebreak() #text(6.5pt, d.key)]], if last > 1 [Readings and sources: page#if last > 2 [s] 2#if last > 2 [ to #last]])
    } else {
      grid(columns: (1fr, auto), [#d.shop, job #d.tag], [page #counter(page).display() of #last])
    }
  },
)
#set text(font: "Archivo", size: 9pt, fill: ink, lang: "en")
#set table(stroke: (x, y) => (bottom: 0.5pt + rule), inset: (x: 3pt, y: 3.2pt))
#show heading.where(level: 1): it => block(above: 12pt, below: 6pt, sticky: true, text(11pt, weight: "bold", it.body))
#let mono(body) = text(font: "Sometype Mono", size: 8pt, body)
#let head(..cells) = table.header(..cells.pos().map(c => text(7.5pt, fill: quiet, c)))
#let verdict(state, words) = {
  if words == "" { none } else {
    let strong = state == "out" or state == "stop"
    box(inset: (x: 3pt, y: 1.5pt), stroke: if strong { 1.2pt } else { 0.5pt + rule }, fill: if state == "stop" { ink } else { none },
      text(7.5pt, weight: if strong { "bold" } else { "regular" }, fill: if state == "stop" { white } else { ink }, words))
  }
}
#let scale(lies) = {
  if lies == none { none } else {
    let wide = 34mm
    box(width: wide, height: 9pt, {
      place(dx: 0pt, dy: 4.5pt, line(length: wide, stroke: 0.6pt + quiet))
      if lies.uncertainty > 0 {
        let from = calc.max(0, lies.at - lies.uncertainty)
        place(dx: from * wide, dy: 2.5pt, rect(width: (calc.min(1, lies.at + lies.uncertainty) - from) * wide, height: 4pt, fill: violet.transparentize(65%), stroke: none))
      }
      for end in lies.limits { place(dx: end * wide, dy: 0.5pt, line(length: 8pt, angle: 90deg, stroke: 1pt + ink)) }
      place(dx: lies.at * wide, dy: 1.2pt, line(length: 6.6pt, angle: 90deg, stroke: 1.8pt + violet))
    })
  }
}

#let f = d.first
#grid(columns: (1fr, auto), column-gutter: 8pt, align: (left + bottom, right + bottom),
  [#mono[Job #d.tag] \ #text(18pt, weight: "bold")[#d.engine] #if d.whose != "" [\ #text(fill: quiet, d.whose)]],
  [#text(weight: "bold")[#d.shop] \ #text(fill: quiet, d.state)],
)
#if d.origin != "" [#align(right, text(7.5pt, fill: quiet, d.origin))]
#line(length: 100%, stroke: 1.6pt)
#block(above: 9pt)[*What was wrong* #f.wrong]
#if f.done != "" [#block(above: 6pt)[*What was done* #f.done]]
#let plate = {
  let dark = f.state == "in"
  let edge = (out: 2pt + ink, stop: 2pt + heat, too_close: 1.4pt + brass, wait: (thickness: 1.2pt, paint: brass, dash: "dashed")).at(f.state, default: 1.2pt + ink)
  block(width: 100%, inset: 10pt, fill: if dark { ink } else { none }, stroke: edge,
    text(fill: if dark { white } else { ink })[#text(16pt, weight: "bold", f.headline) \ #f.line])
}
#block(above: 10pt, grid(columns: (1fr, 1fr), column-gutter: 12pt, plate,
  if f.decisions.len() > 0 { block(width: 100%, stroke: (left: 3pt + heat), inset: (left: 8pt, y: 2pt))[*Decided against advice* \ #f.decisions.join(linebreak())] },
))
#if f.figures.len() > 0 [
  = Figures that matter
  #table(columns: (1fr, auto, auto, auto, auto, auto), align: horizon, inset: (x: 3pt, y: 4.4pt), head[Figure][As found][As left][Limit][Where it lies][Verdict],
    ..f.figures.map(g => (g.name, if g.came { mono(g.found) } else { text(8pt, fill: quiet, g.found) }, if g.again { mono(strong(g.left)) } else { text(8pt, fill: quiet, g.left) }, mono(g.limits), scale(g.lies), verdict(g.state, g.call))).flatten())
]
#if f.shown.len() > 0 [
  #block(above: 12pt, breakable: false, grid(columns: (1fr,) * f.shown.len(), gutter: 8pt, ..f.shown.map(g => box(width: 100%, height: 46mm, stroke: 0.8pt, inset: 5pt)[
    *#g.title* #g.when
    #v(2pt)
    #align(center, image(g.file, width: 100%, height: 36mm, fit: "contain", alt: g.alt))
  ])))
]
#for (title, words) in f.paragraphs [
  = #title
  #words
]

#if d.calls.len() + d.figures.len() + d.lists.len() + d.drawings.len() + d.photos.len() > 0 [#pagebreak()]
#grid(columns: (auto, 1fr), column-gutter: 10pt, row-gutter: 4pt, ..d.facts.map(((name, words)) => (text(fill: quiet, name), words)).flatten())
#if d.calls.len() > 0 [
  = What was judged, station by station
  #table(columns: (auto, auto, auto, 1fr, auto), head[Station][Part][Verdict][Why][Signed],
    ..d.calls.map(c => (c.station, c.part, verdict(c.state, c.words), c.reason, text(7.5pt, c.by))).flatten())
]
#if d.figures.len() > 0 [
  = Every reading, as found and as left
  #table(columns: (1.5fr, auto, auto, 1fr, auto, auto), head[Figure][Found][Left][Limits, from where][Verdict][Gauge, who, when],
    ..d.figures.map(group => (
      table.cell(colspan: 6, inset: (top: 7pt), text(weight: "bold", group.station)),
      ..group.rows.map(g => (
        [#g.words#if g.part != "" [ #text(7.5pt, fill: quiet)[#g.part]]], mono(g.found), mono(g.left),
        [#mono(g.limits)#if g.source != "" [#if g.limits != "" [ \ ]#text(7pt, fill: quiet, g.source)]], verdict(g.state, g.call), text(7pt, g.who),
      )).flatten(),
    )).flatten())
]
#for (title, lines) in d.lists [
  = #title
  #list(..lines.map(line => [#line]))
]
#if d.drawings.len() > 0 [
  = Drawings
  #grid(columns: (1fr, 1fr), gutter: 9pt, ..d.drawings.map(g => block(breakable: false)[
    #text(weight: "bold", g.title) \ #text(7.5pt, fill: quiet, g.words)
    #image(g.file, width: 100%, alt: g.title + ": " + g.words)
  ]))
]
#if d.photos.len() > 0 [
  = Photos
  #grid(columns: (1fr, 1fr), gutter: 7pt, ..d.photos.map(p => block(breakable: false)[
    #image(p.file, width: 100%, alt: p.caption) #text(7.5pt, p.caption)
  ]))
]
