/* Any station, seat or part in two keys: / numbers them, the number goes there. Escape, or any other key, ends it. */
(() => {
  "use strict";

  const KEYS = "123456789abcdefghijklmnopqrstuvwxyz";
  const PLACES = ".run a:not(.phone-only), .seat-tabs a, .seat-tabs button";
  let offered = [];

  const over = () => {
    offered.forEach((place) => place.removeAttribute("data-hop"));
    offered = [];
  };
  const offer = () => {
    over();
    offered = [...document.querySelectorAll(PLACES)].filter((place) => place.offsetParent).slice(0, KEYS.length);
    offered.forEach((place, index) => place.setAttribute("data-hop", KEYS[index]));
    offered[0]?.scrollIntoView({ block: "nearest" });
  };
  const typing = () => {
    const active = document.activeElement;
    return active && active.matches("textarea, select, input:not([type=range]):not([type=checkbox]):not([type=radio])") && (active.id !== "strip-field" || active.value !== "");
  };

  document.addEventListener("keydown", (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    if (offered.length) {
      const place = event.key.length === 1 ? offered[KEYS.indexOf(event.key.toLowerCase())] : null;
      if (event.key === "Shift") return;
      over();
      event.preventDefault();
      event.stopImmediatePropagation();
      if (place) place.click();
      return;
    }
    if (event.key !== "/" || typing() || !document.querySelector(PLACES)) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    offer();
  }, true);
  document.addEventListener("htmx:beforeSwap", over);
})();
