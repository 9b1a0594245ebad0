/* Practice: what is in the hands. A crank under a dial is turned by wheel, finger or arrow keys. The server has sent where the needle stands at the next steps either way;
   the page only moves it between them, and says how far it was turned once the hand rests. */
(() => {
  "use strict";
  const RESTS_MS = 350, A_STEP_PX = 9, FAR = 3; // Page Up and Page Down go so many steps
  let turned = 0, resting = null, held = null, focused = false;

  const dial = () => document.getElementById("hands-turns");
  const samples = () => JSON.parse(document.getElementById("dial-samples").textContent);

  const show = () => {
    const here = dial(), told = samples();
    const way = turned >= 0 ? told.on : told.back;
    const at = Math.min(Math.abs(turned), way.length - 1);
    const angle = (((told.angle + Math.sign(turned) * at * told.by) % 360) + 360) % 360;
    here.querySelectorAll("[data-turns]").forEach((hand) => {
      const share = hand.dataset.turns === "needle" ? way[at] / told.round : Math.floor(way[at] / told.round + 1e-9) / 10;
      const [, x, y] = hand.getAttribute("transform").match(/[-\d.]+/g);
      hand.setAttribute("transform", `rotate(${(360 * share) % 360} ${x} ${y})`);
    });
    here.setAttribute("aria-valuenow", angle);
    here.setAttribute("aria-valuetext", `${angle}°, ${(1000 * (way[at] - (told.rounds ? Math.floor(way[at] / told.round + 1e-9) * told.round : 0))).toFixed(0)} µm`);
    document.querySelector("#hands-status b").textContent = told.where.replace("{angle}", angle);
  };

  const tell = () => {
    resting = null;
    const form = document.querySelector(".hands form[hx-post]"), steps = turned;
    turned = 0;
    if (!steps || !form) return;
    focused = document.activeElement === dial();
    const values = { lever: "turn-by", steps, client_key: form.querySelector("[name=client_key]").value };
    htmx.ajax("POST", form.getAttribute("hx-post"), { target: "#hands", swap: "outerHTML", values });
  };

  const turn = (steps) => {
    const told = samples(), most = Math.min(told.on.length, told.back.length) - 1;
    turned = Math.max(-most, Math.min(most, turned + steps));
    show();
    clearTimeout(resting);
    resting = setTimeout(tell, RESTS_MS);
  };

  const KEYS = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1, PageUp: FAR, PageDown: -FAR };
  document.addEventListener("keydown", (event) => {
    if (event.target !== dial() || !dial() || !(event.key in KEYS) || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    turn(KEYS[event.key]);
  }, true);
  document.addEventListener("wheel", (event) => {
    if (!event.target.closest("#hands-turns")) return;
    event.preventDefault();
    turn(event.deltaY > 0 ? 1 : -1);
  }, { passive: false });
  document.addEventListener("pointerdown", (event) => {
    const here = event.target.closest("#hands-turns");
    if (!here) return;
    held = { x: event.clientX, y: event.clientY };
    here.setPointerCapture(event.pointerId);
    here.focus({ preventScroll: true });
  });
  document.addEventListener("pointermove", (event) => {
    if (!held || !dial()) return;
    const steps = Math.trunc((event.clientX - held.x) / A_STEP_PX);
    if (!steps) return;
    held.x += steps * A_STEP_PX;
    turn(steps);
  });
  ["pointerup", "pointercancel"].forEach((name) => document.addEventListener(name, () => { held = null; }));
  /* what a gauge in hand shows goes into the field as a gauge with a button would send it; nothing is kept before Enter */
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-into-strip]"), field = document.getElementById("strip-field");
    if (!key || !field) return;
    field.value = key.dataset.intoStrip;
    field.dispatchEvent(new Event("input", { bubbles: true }));
    field.focus();
  });
  const offer = () => {
    const key = document.querySelector("[data-into-strip]");
    if (key) key.hidden = !document.getElementById("strip-field");
  };
  document.addEventListener("htmx:afterSettle", offer);
  document.addEventListener("htmx:afterSwap", () => {
    if (!focused || !dial()) return;
    focused = false;
    dial().focus({ preventScroll: true });
  });
})();
