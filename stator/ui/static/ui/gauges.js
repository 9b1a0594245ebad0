/* A gauge that is heard: its reading stands in the field and Enter takes it. No rule of the trade lives here. */
(() => {
  "use strict";

  const FAST_MS = 200;
  const SLOW_MS = 1000; // when it is silent, lost, or feeds another page
  let pressed = 0; // the last line of a gauge with a button that was kept or was there before the page
  let heardFrom = "";
  let taking = false;
  let refused = false; // what a button sent behind a refused reading was for the next question, and answers none

  const box = () => document.getElementById("live");
  const field = () => document.getElementById("strip-field");
  const device = (() => {
    const fresh = `${Date.now().toString(36)}${Math.random().toString(36).slice(2)}`;
    try {
      const known = sessionStorage.getItem("device") || fresh;
      sessionStorage.setItem("device", known);
      return known;
    } catch (error) {
      return fresh;
    }
  })();

  const ask = async (here) => {
    const { gauge, ask: wanted, place, unit = "", mark = "" } = here.dataset;
    const query = new URLSearchParams({ device, ask: wanted, place, unit, mark, since: heardFrom === gauge && !refused ? pressed : "" });
    if (taking) query.set("take", "1");
    taking = false;
    const afterRefusal = refused;
    try {
      const answer = await fetch(`/gauges/${gauge}/?${query}`, { headers: { "X-Partial": "1" } });
      return answer.ok ? { ...await answer.json(), afterRefusal } : { state: "lost", words: window.scriptMessage("gauge_sign_in") };
    } catch (error) {
      return { state: "lost", words: window.scriptMessage("no_connection_gauge") };
    }
  };

  const look = async () => {
    const here = box();
    let said = null;
    if (here && !document.hidden) {
      said = await ask(here);
      if (box() === here) show(here, said);
    }
    setTimeout(look, said && said.state !== "live" ? SLOW_MS : FAST_MS); // with no box there is nothing to ask
  };

  const show = (here, said) => {
    const input = field();
    const live = said.state === "live" && Boolean(said.text);
    here.dataset.state = live ? "live" : said.state === "live" ? "starting" : said.state;
    here.dataset.button = said.button ? "yes" : "";
    const peak = here.dataset.mark !== undefined && said.peak;
    let words = said.words;
    if (live && !said.button) words = peak ? window.scriptMessage("live_peak", { value: said.shown }) : window.scriptMessage("live");
    const place = here.querySelector(".live-words");
    if (place.textContent !== words) place.textContent = words;
    if (input) {
      if (input.dataset.example === undefined) input.dataset.example = input.placeholder;
      input.placeholder = live && !said.button ? bare(peak || said.shown) : input.dataset.example;
      input.classList.toggle("hearing", live && !said.button);
    }
    needles(said);
    levers(here, said);
    press(here, said);
  };

  /* a needle on the drawing follows the gauge: where its zero is and how far one unit moves it, the server has said */
  const needles = (said) => {
    if (said.value === undefined) return;
    document.querySelectorAll(".needle").forEach((needle) => {
      const y = Number(needle.dataset.zero) - Number(needle.dataset.each) * said.value;
      needle.setAttribute("y1", y);
      needle.setAttribute("y2", y);
    });
  };

  const bare = (shown) => shown.split(" ")[0]; // the unit stands beside the field already

  /* a gauge with a button: each line it sends is an Enter of its own */
  const press = (here, said) => {
    if (heardFrom !== here.dataset.gauge) {
      heardFrom = here.dataset.gauge;
      pressed = said.seq || 0; // what it sent before this page waited is not for it
      return;
    }
    if (refused) {
      if (!said.afterRefusal) return; // this answer may be older than the refusal; the next one is not
      const words = window.scriptMessage("gauge_not_for_this");
      if (said.button && said.seq > pressed) document.dispatchEvent(new CustomEvent("strip:note", { detail: words }));
      pressed = Math.max(pressed, said.seq || 0);
      refused = false;
      return;
    }
    const input = field();
    if (!said.button || !said.text || said.seq <= pressed || !input || input.value || document.body.dataset.sending) return; // it waits its turn
    pressed = said.seq;
    fill(input, said.text);
    input.form.requestSubmit();
  };

  document.addEventListener("htmx:beforeSwap", (event) => {
    if (event.detail.xhr.getResponseHeader("X-Kept") === "no") refused = true;
  });

  const fill = (input, text) => {
    input.value = text;
    input.form.elements.heard.value = "1";
  };

  /* Enter on the empty field takes what the gauge reads at that moment, not what was last shown */
  document.addEventListener("submit", (event) => {
    const input = event.target.querySelector("#strip-field");
    const here = box();
    if (!input || input.value.trim() !== "" || !here || here.dataset.state !== "live" || here.dataset.button) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    take(here, input);
  }, true);

  const take = async (here, input) => {
    const said = await ask(here);
    if (box() !== here) { // drawn anew meanwhile: the same question is asked once more, another one is not answered by this
      const now = box();
      if (now && now.dataset.ask === here.dataset.ask && field() && !field().value) take(now, field());
      return;
    }
    if (input.value || document.body.dataset.sending) return;
    show(here, said);
    const peak = here.dataset.mark !== undefined && said.peak;
    if (said.state !== "live" || !said.text) return;
    fill(input, peak || said.text);
    input.form.requestSubmit();
  };

  let opened = false; // the controls of a simulated gauge stay open while one works with them

  const levers = (here, said) => {
    buttons(here, here, said.state === "elsewhere" ? [["", window.scriptMessage("take_here")]] : []);
    const panel = document.getElementById("simulated");
    if (!panel) return;
    const offered = said.state === "elsewhere" ? [] : said.levers || [];
    buttons(panel.querySelector("div"), here, offered);
    if (panel.hidden === Boolean(offered.length)) panel.hidden = !offered.length;
    if (!panel.dataset.ready) {
      panel.dataset.ready = "yes";
      panel.open = opened;
      panel.addEventListener("toggle", () => { if (panel.isConnected) opened = panel.open; });
    }
  };

  const buttons = (place, here, offered) => {
    const name = JSON.stringify(offered);
    if ((place.dataset.offered || "[]") === name) return;
    place.dataset.offered = name;
    place.querySelectorAll("button").forEach((old) => old.remove());
    offered.forEach(([word, does]) => {
      const button = Object.assign(document.createElement("button"), { type: "button", className: "button", textContent: does });
      button.addEventListener("click", () => pull(here.dataset.gauge, word));
      place.append(button);
    });
  };

  const pull = async (gauge, word) => {
    field()?.focus({ preventScroll: true });
    if (!word) {
      taking = true;
      return;
    }
    const headers = { "X-Partial": "1", ...JSON.parse(document.body.getAttribute("hx-headers")) };
    await fetch(`/gauges/${gauge}/lever/`, { method: "POST", headers, body: new URLSearchParams({ lever: word }) });
  };

  document.addEventListener("DOMContentLoaded", look);
})();
