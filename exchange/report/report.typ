// A job's sheet. Data come in as JSON; drawings and pictures as files beside it.
#let d = json(bytes(sys.inputs.data))
#let violet = rgb("#3b2f93")
#let quiet = rgb("#59554b")
#let rule = rgb("#d9d2c1")
#set document(title: d.title, author: d.shop)
#set page(
  paper: d.paper,
  margin: (x: 16mm, top: 18mm, bottom: 20mm),
  footer: context [
    #set text(7.5pt, fill: quiet)
    #grid(columns: (1fr, auto), [#d.footer], [#d.tag, page #counter(page).display() of #counter(page).final().first()])
  ],
)
#set text(font: "Archivo", size: 9pt, fill: rgb("#191a1c"), lang: "en")
#set table(stroke: (x, y) => (bottom: 0.5pt + rule), inset: (x: 3pt, y: 3.2pt))
#show heading.where(level: 1): it => block(above: 14pt, below: 7pt, text(13pt, weight: "bold", it.body))
#let mono(body) = text(font: "Sometype Mono", size: 8pt, body)
#let call(state) = {
  let words = ("in": "in", too_close: "too close", out: "out", stop: "stop", wait: "").at(state, default: "")
  if words != "" { box(inset: (x: 3pt, y: 1.5pt), stroke: 0.7pt, fill: if state == "stop" { luma(30) } else { none }, text(7.5pt, weight: "bold", fill: if state == "stop" { white } else { black }, words)) }
}
#let head(..cells) = table.header(..cells.pos().map(c => text(7.5pt, fill: quiet, c)))

#grid(columns: (1fr, auto), column-gutter: 8pt,
  [#text(22pt, weight: "bold")[#d.tag #d.engine] \ #d.summary \ #text(fill: quiet)[#d.complaint]],
  align(right)[#text(weight: "bold")[#d.shop] \ #d.state],
)
#line(length: 100%, stroke: 1.2pt)
#grid(columns: (auto, 1fr), column-gutter: 10pt, row-gutter: 4pt, ..d.facts.map(((name, words)) => (text(fill: quiet, name), words)).flatten())

#if d.calls.len() > 0 [
  = What was judged
  #table(columns: (auto, auto, auto, 1fr, auto), head[Station][Part][Call][Why][Signed],
    ..d.calls.map(c => (c.station, c.part, call(c.state), [#text(weight: "bold", c.words). #c.reason], text(7.5pt, c.by))).flatten())
]
#if d.figures.len() > 0 [
  = As found, as left
  #table(columns: (1.5fr, auto, auto, 1fr, auto, auto), head[Figure][Found][Left][Limits, from where][Call][Gauge, who, when],
    ..d.figures.map(group => (
      table.cell(colspan: 6, inset: (top: 7pt), text(weight: "bold", group.station)),
      ..group.rows.map(f => (
        [#f.words#if f.part != "" [ #text(7.5pt, fill: quiet)[#f.part]]], mono(f.found), mono(f.left),
        [#mono(f.limits)#if f.source != "" [#if f.limits != "" [ \ ]#text(7pt, fill: quiet, f.source)]], call(f.state), text(7pt, f.who),
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
  #grid(columns: (1fr, 1fr, 1fr), gutter: 7pt, ..d.photos.map(p => block(breakable: false)[
    #image(p.file, width: 100%, alt: p.caption) #text(7.5pt, p.caption)
  ]))
]
#v(10pt)
#line(length: 100%, stroke: 0.7pt)
#d.closing
