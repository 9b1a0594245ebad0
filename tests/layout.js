/* What lies wrong on a page, as sentences; run by tests/layout.py in the page itself. */
() => {
  const faults = [];
  const shown = (e) => {
    const box = e.getBoundingClientRect();
    if (box.width < 1 || box.height < 1 || e.closest(".sr, [hidden], noscript, .skip-link")) return false;
    const style = getComputedStyle(e);
    return style.visibility !== "hidden" && style.display !== "none" && style.opacity !== "0" && !e.closest("details:not([open]) > :not(summary)");
  };
  const said = (e) => (e.textContent || e.value || e.getAttribute("aria-label") || "").trim().replace(/\s+/g, " ").slice(0, 60);
  const name = (e) => `${e.tagName.toLowerCase()}${e.id ? `#${e.id}` : ""}${typeof e.className === "string" && e.className ? `.${e.className.split(" ")[0]}` : ""}`;
  const wide = document.documentElement.scrollWidth;
  if (wide > innerWidth + 1) faults.push(`the page is ${wide} px wide`);

  // text that its own box cuts
  for (const e of document.querySelectorAll("body *")) {
    if (!shown(e) || e.closest("svg, select, .recorded-frame, .shelves") || e.matches("input, textarea, select")) continue;
    const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
    const style = getComputedStyle(e);
    if (own && style.overflow !== "visible" && (e.scrollWidth > e.clientWidth + 1 || e.scrollHeight > e.clientHeight + 2) && !/auto|scroll/.test(style.overflow + style.overflowY)) {
      faults.push(`cut: ${name(e)} “${said(e)}”`);
    }
    if (!own) continue;
    const range = document.createRange();
    range.selectNodeContents(e);
    const box = range.getBoundingClientRect();
    if (box.right > innerWidth + 1 && !e.closest("[tabindex='0'], .run, .seat-tabs, nav")) faults.push(`off the right edge: ${name(e)} “${said(e)}”`);
  }

  // drawings: letters too small, labels over one another or off the paper
  for (const svg of document.querySelectorAll("svg.sheet, .picture svg, .scale, .heads")) {
    if (!shown(svg)) continue;
    const paper = svg.getBoundingClientRect();
    const labels = [...svg.querySelectorAll("text")].filter((t) => shown(t) && t.textContent.trim());
    const boxes = labels.map((t) => t.getBoundingClientRect());
    labels.forEach((t, i) => {
      const size = parseFloat(getComputedStyle(t).fontSize) * Math.abs(t.getScreenCTM().a || t.getScreenCTM().b);
      if (size < 10.9 && !svg.closest(".bench-head")) faults.push(`letters of ${size.toFixed(1)} px: “${said(t)}”`);
      const a = boxes[i];
      if (!svg.matches(".heads") && (a.left < paper.left - 2 || a.right > paper.right + 2 || a.bottom > paper.bottom + 3 || a.top < paper.top - 3)) {
        faults.push(`off the drawing: “${said(t)}”`);
      }
      for (let j = i + 1; j < labels.length; j += 1) {
        if (svg.matches(".heads")) continue;
        const b = boxes[j];
        const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
        const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
        if (across > 2 && down > 0.3 * Math.min(a.height, b.height)) faults.push(`over one another: “${said(t)}” and “${said(labels[j])}”`);
      }
    });
  }

  // targets
  for (const e of document.querySelectorAll("a[href], button, select, summary, input:not([type=hidden]), textarea")) {
    if (!shown(e) || e.closest("svg") || e.disabled) continue;
    const label = e.matches("[type=checkbox], [type=radio]") ? e.closest("label") : null;
    const box = (label || e).getBoundingClientRect();
    const style = getComputedStyle(e);
    const running = e.matches("a") && style.display === "inline" && [...e.parentElement.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim().length > 1);
    if (!running && (box.height < (e.closest(".run") && matchMedia("(pointer: fine)").matches ? 32.5 : 43.5) || box.width < 24) && !e.closest(".no-target")) faults.push(`small target, ${Math.round(box.width)} × ${Math.round(box.height)}: ${name(e)} “${said(e)}”`);
  }

  // the strip: nothing under it, nothing of it cut
  const strip = document.querySelector("section.strip");
  if (strip) {
    const edge = strip.getBoundingClientRect();
    if (edge.bottom > innerHeight + 1 || (edge.height < 30)) faults.push(`the strip ends at ${Math.round(edge.bottom)}`);
    for (const e of document.querySelectorAll("#picture svg, .time-slider")) {
      const box = e.getBoundingClientRect();
      const frame = document.getElementById("drawing").getBoundingClientRect();
      const scrolls = /auto|scroll/.test(getComputedStyle(document.getElementById("drawing")).overflowY);
      if (shown(e) && innerWidth > 800 && box.bottom > edge.top + 2 && !(scrolls && frame.bottom <= edge.top + 1)) faults.push(`under the strip: ${name(e)}`);
      if (shown(e) && innerWidth > 800 && box.height < 200 && e.matches("svg")) faults.push(`a drawing of ${Math.round(box.height)} px`);
    }
    for (const e of strip.querySelectorAll("*")) {
      const box = e.getBoundingClientRect();
      if (shown(e) && e.children.length === 0 && (box.bottom > edge.bottom + 1 || box.top < edge.top - 1)) faults.push(`cut by the strip: ${name(e)} “${said(e)}”`);
    }
  }
  return [...new Set(faults)];
}
