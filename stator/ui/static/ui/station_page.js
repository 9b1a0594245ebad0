/* Panels, drawers, clocks and alarms of the working screen. No rule of the trade lives here. */
(() => {
  "use strict";

  let openPanel = "";
  let skew = 0; // server clock minus this clock, ms
  let pace = 1; // times as fast as the machine's clock, in practice
  let seen = Date.now();

  const store = window.deviceStorage;

  const focusStrip = () => document.dispatchEvent(new CustomEvent("strip:focus"));

  const showPanel = (name) => {
    openPanel = name === openPanel ? "" : name;
    document.querySelectorAll(".panel").forEach((panel) => {
      panel.hidden = panel.id !== openPanel;
    });
    const open = openPanel && document.getElementById(openPanel);
    if (open) open.focus({ preventScroll: true });
    if (open) fill(open);
    else focusStrip();
  };
  /* behind ?, the terms of the glossary that stand on this page */
  const terms = (panel) => {
    const page = [...document.querySelectorAll(".picture, .call, .strip")].map((part) => part.textContent).join(" ").toLowerCase();
    panel.querySelectorAll("[data-term]").forEach((term) => {
      const word = term.dataset.term.replace(/\s*\(.*\)/, "").replace(/[.*+?^${}()|[\]\\]/g, "\\$&");
      term.hidden = !new RegExp(`(^|[^\\p{L}])${word}`, "u").test(page);
    });
  };
  const fill = (panel) => {
    terms(panel);
    const empty = panel.querySelector("[data-fetch]");
    if (empty) htmx.trigger(empty, "opened");
  };
  const restorePanel = () => {
    const panel = openPanel && document.getElementById(openPanel);
    if (!panel) return;
    if (panel.hidden) fill(panel);
    else terms(panel);
    panel.hidden = false;
  };

  document.addEventListener("keydown", (event) => {
    if (event.key !== "Escape") return;
    if (!document.getElementById("flash").hidden) hideFlash();
    else if (openPanel) showPanel(openPanel);
  });

  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-panel]");
    if (key) showPanel(key.dataset.panel);
    if (event.target.closest("#flash-off")) hideFlash();
  });

  /* one tap takes a picture: chosen, it is sent */
  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-snap]") && event.target.files.length) event.target.form.requestSubmit();
  });

  /* what the right column holds below its fold, named at its foot; a tap goes there */
  const hidden = () => {
    const call = document.querySelector(".call");
    const edge = call ? call.getBoundingClientRect().bottom - 44 : 0;
    return call ? [...call.querySelectorAll("section > h3")].filter((head) => head.offsetParent && head.getBoundingClientRect().top > edge) : [];
  };
  const announceHiddenSections = () => {
    const line = document.getElementById("below");
    if (!line) return;
    const names = hidden().map((head) => head.textContent.trim());
    line.hidden = names.length === 0;
    const said = names.length ? window.scriptMessage("below", { names: names.join(", ") }) : "";
    if (line.textContent !== said) line.textContent = said;
  };
  document.addEventListener("scroll", announceHiddenSections, true);
  window.addEventListener("resize", announceHiddenSections);
  document.fonts?.ready.then(announceHiddenSections);
  document.addEventListener("click", (event) => {
    if (!event.target.closest("#below")) return;
    hidden()[0]?.scrollIntoView({ block: "start" });
    focusStrip();
  });

  /* an answer is merged into the page: what did not change stays as it is, with its focus, its scroll position and what was opened in it */
  const callbacks = window.Idiomorph.defaults.callbacks;
  callbacks.beforeAttributeUpdated = (name, node, change) => !(node.tagName === "DETAILS" && name === "open" && change === "remove");
  document.addEventListener("htmx:beforeSwap", (event) => {
    const active = document.activeElement;
    if (event.detail.target?.id === "work" && active.matches("#work a, #work button")) active.blur(); // a second Enter must not press what takes its place
  });

  document.addEventListener("htmx:afterSettle", () => {
    announceHiddenSections();
    restorePanel();
    restoreDrawer();
    watchTimers();
  });
  document.addEventListener("open-panel", (event) => {
    const name = event.detail.value || event.detail;
    if (name === "timer") toggleAlarm();
    else showPanel(name);
  });
  /* run as a drawer, call as one line, on a phone */
  let drawer = false;
  let call = false;
  const restoreDrawer = () => {
    document.querySelector(".run")?.classList.toggle("open", drawer);
    document.querySelector(".drawer-key")?.setAttribute("aria-expanded", String(drawer));
    document.querySelector(".call")?.classList.toggle("open", call);
    document.querySelector(".call-key")?.setAttribute("aria-expanded", String(call));
  };
  document.addEventListener("click", (event) => {
    if (event.target.closest(".drawer-key")) drawer = !drawer;
    else if (event.target.closest(".call-key")) call = !call;
    else return;
    restoreDrawer();
  });

  /* a key that leads to a choice of method opens the column on a phone, and the choice has the focus */
  document.addEventListener("click", (event) => {
    const key = event.target.closest("a[href^='#method-']");
    const choice = key && document.querySelector(key.getAttribute("href"));
    if (!choice) return;
    event.preventDefault();
    call = true;
    restoreDrawer();
    choice.scrollIntoView({ block: "center" });
    choice.focus({ preventScroll: true });
  });

  /* clocks: the server keeps them, the page shows them */
  const text = (ms) => {
    const whole = Math.round(Math.abs(ms) / 1000);
    const hours = Math.floor(whole / 3600);
    const minutes = Math.floor((whole % 3600) / 60);
    const seconds = String(whole % 60).padStart(2, "0");
    const plain = hours ? `${hours}:${String(minutes).padStart(2, "0")}:${seconds}` : `${minutes}:${seconds}`;
    return ms < -499 ? `+${plain}` : plain;
  };
  let wake = null;
  const watchTimers = () => {
    const timers = document.querySelectorAll("[data-due]");
    const now = Date.now() + skew + (pace - 1) * (Date.now() - seen);
    let window_open = false;
    timers.forEach((timer) => {
      const due = Number(timer.dataset.due);
      const shown = timer.querySelector("b") || timer;
      const left = due ? due - now : Number(timer.dataset.started) - now;
      const words = due ? text(left) : text(Math.abs(left));
      if (shown.textContent !== words) shown.textContent = words;
      timer.classList.toggle("over", Boolean(due) && left < 0);
      if (timer.classList.contains("window")) window_open = true;
      const name = `rang ${timer.dataset.timer} ${timer.dataset.due}`;
      if (due && left <= 0 && left > -120000 && !store(name)) {
        store(name, "1");
        ring(timer.dataset.words);
      }
    });
    stayAwake(window_open);
  };
  const stayAwake = async (wanted) => {
    try {
      if (wanted && !wake && "wakeLock" in navigator && !document.hidden) {
        wake = await navigator.wakeLock.request("screen");
        wake.addEventListener("release", () => { wake = null; });
      } else if (!wanted && wake) {
        await wake.release();
      }
    } catch (error) {
      wake = null; // refused on a flat battery or without TLS; the timers ring without it
    }
  };

  /* alarm: full-screen flash and a tone, both can be switched off */
  const alarmOn = (what) => store(`alarm ${what}`) !== "off";
  const toggleAlarm = (what) => {
    (what ? [what] : ["sound", "flash"]).forEach((name) => store(`alarm ${name}`, alarmOn(name) ? "off" : "on"));
    showAlarm();
  };
  const showAlarm = () => {
    document.querySelectorAll("[data-alarm]").forEach((key) => {
      const on = alarmOn(key.dataset.alarm);
      key.setAttribute("aria-pressed", String(on));
      key.querySelector("span").textContent = window.scriptMessage(on ? "on" : "off");
    });
  };
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-alarm]");
    if (key) toggleAlarm(key.dataset.alarm);
  });
  const hideFlash = () => {
    const flash = document.getElementById("flash");
    const inHand = flash.contains(document.activeElement) || document.activeElement === document.body;
    flash.hidden = true;
    if (inHand) focusStrip();
  };
  const ring = (words) => {
    if (alarmOn("flash")) {
      document.getElementById("flash-words").textContent = words;
      const flash = document.getElementById("flash");
      const top = document.elementFromPoint(window.innerWidth / 2, 1);
      const before = top?.getBoundingClientRect().top;
      flash.hidden = false;
      if (window.scrollY) window.scrollBy(0, top.getBoundingClientRect().top - before - flash.offsetHeight); // nothing under the message
      setTimeout(hideFlash, 12000);
    }
    if (alarmOn("sound")) tone();
  };
  const tone = () => {
    const Sound = window.AudioContext;
    if (!Sound) return;
    const sound = new Sound();
    [0, 0.35, 0.7].forEach((start) => {
      const voice = sound.createOscillator();
      const volume = sound.createGain();
      voice.frequency.value = 880;
      volume.gain.value = 0.25;
      voice.connect(volume).connect(sound.destination);
      voice.start(sound.currentTime + start);
      voice.stop(sound.currentTime + start + 0.22);
    });
    setTimeout(() => sound.close(), 1500);
  };

  /* the server draws for the paper this device shows; a turned phone or a resized window asks for the other */
  const narrow = window.matchMedia("(max-width: 760px)");
  const paper = () => {
    document.cookie = `paper=${narrow.matches ? "narrow" : "wide"}; path=/; max-age=31536000; samesite=lax`;
  };
  narrow.addEventListener("change", () => {
    paper();
    if (document.getElementById("work")) window.location.reload();
  });

  document.addEventListener("DOMContentLoaded", () => {
    announceHiddenSections();
    paper();
    const clock = document.querySelector("[data-server-now]");
    seen = Date.now();
    pace = Number(clock?.dataset.pace || 1);
    if (clock) skew = Number(clock.dataset.serverNow) - seen;
    watchTimers();
    showAlarm();
    setInterval(watchTimers, 500);
    document.addEventListener("htmx:afterSettle", showAlarm);
  });
})();
