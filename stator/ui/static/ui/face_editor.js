/* A tap on a drawing or a picture becomes a place: mm on a joint face, shares of a photo's width and height. */
(() => {
  "use strict";

  const place = (tap, event) => {
    const svg = tap.querySelector("svg");
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    const { width, height } = svg.viewBox.baseVal;
    if (tap.dataset.share) return { x: at.x / width, y: at.y / height, digits: 4 };
    const { scale, midX, midY, digits = 1 } = tap.dataset;
    return { x: (at.x - Number(midX)) / Number(scale), y: (Number(midY) - at.y) / Number(scale), digits: Number(digits) };
  };

  document.addEventListener("click", (event) => {
    const tap = event.target.closest("[data-tap]");
    const form = tap && document.getElementById(tap.dataset.tap);
    if (!form || event.target.closest("a, button")) return;
    const { x, y, digits } = place(tap, event);
    form.querySelector("[data-tap-x]").value = x.toFixed(digits);
    form.querySelector("[data-tap-y]").value = y.toFixed(digits);
    const words = form.querySelector("[data-tap-words]"); // a pin wants its note first
    if (words && !words.value) words.focus();
    else form.requestSubmit();
  });
})();
