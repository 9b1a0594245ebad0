/* Focus, keys, clocks and alarms of the working screen. No rule of the trade lives here. */
(() => {
  "use strict";

  const QUIET_MS = 500; // an empty Enter this soon after a kept reading is a gauge's second Enter
  let keptAt = 0;
  let openPanel = "";
  let sliderAt = 0;
  let skew = 0; // server clock minus this clock, ms

  const field = () => document.getElementById("strip-field");
  const fine = () => window.matchMedia("(pointer: fine)").matches;
  const store = (name, value) => {
    try {
      if (value === undefined) return localStorage.getItem(name);
      if (value === null) localStorage.removeItem(name);
      else localStorage.setItem(name, value);
    } catch (error) {
      return null; // private windows have no store; the page works without it
    }
    return value;
  };

  /* drafts: what is typed survives a reload, a lost network and a signed-out session */
  const draftName = (input) => `draft ${input.form.action} ${input.dataset.ask}`;
  const keepDraft = (input) => store(draftName(input), input.value || null);
  const bringDraft = () => {
    const input = field();
    if (!input || input.value) return;
    const draft = store(draftName(input));
    if (draft && draft === input.dataset.before) store(draftName(input), null); // kept already, by a plain form post
    else if (draft) input.value = draft;
  };

  const focusStrip = () => {
    const input = field();
    if (!input || !fine()) return;
    const active = document.activeElement;
    const lost = !active || active === document.body || active === input;
    if (lost) {
      input.focus({ preventScroll: true });
      input.setSelectionRange(input.value.length, input.value.length);
    }
  };

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
  const fill = (panel) => {
    const empty = panel.querySelector("[data-fetch]");
    if (empty) htmx.trigger(empty, "opened");
  };
  const restorePanel = () => {
    const panel = openPanel && document.getElementById(openPanel);
    if (!panel) return;
    if (panel.hidden) fill(panel);
    panel.hidden = false;
  };

  /* a gauge types wherever the cursor happens to be: digits go to the strip */
  const typesText = (element) =>
    element.matches("textarea, select, input:not([type=range]):not([type=checkbox]):not([type=radio])") && element.id !== "strip-field";

  /* a few answers: their first letter goes to one, Enter then takes it; nothing is taken by a stray Enter */
  const options = () => [...document.querySelectorAll(".strip-options .button")];
  const toOption = (event) => {
    if (event.ctrlKey || event.metaKey || event.altKey || typesText(document.activeElement) || !/^[a-z]$/i.test(event.key)) return;
    const found = options().filter((option) => option.textContent.trim().toLowerCase().startsWith(event.key.toLowerCase()));
    if (found.length === 0) return;
    found[(found.indexOf(document.activeElement) + 1) % found.length].focus();
    event.preventDefault();
  };

  /* full hands: where the page says so, Enter alone gives the usual answer; a second Enter right behind it gives none */
  const byEnter = (event) => {
    const usual = document.querySelector("[data-enter]");
    if (!usual) return;
    event.preventDefault();
    if (!event.repeat && Date.now() - keptAt > QUIET_MS) usual.click();
  };

  document.addEventListener("keydown", (event) => {
    const input = field();
    if (!input) toOption(event);
    if (!input && event.key === "Enter" && document.activeElement === document.body) byEnter(event);
    if (event.key === "Escape") {
      if (!document.getElementById("flash").hidden) hideFlash();
      else if (openPanel) showPanel(openPanel);
      return;
    }
    if (!input) return;
    const active = document.activeElement;
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    const digit = /^[0-9+\-.,−]$/.test(event.key) && !typesText(active);
    const word = /^[a-z?]$/i.test(event.key) && active === document.body;
    if (active !== input && plain && (digit || word)) {
      input.focus({ preventScroll: true });
    }
    if (event.key === "Enter" && plain && active === document.body) {
      input.focus({ preventScroll: true });
      input.form.requestSubmit(); // a gauge's Enter counts wherever the cursor is
      event.preventDefault();
    }
    if (event.key === "ArrowUp" && document.activeElement === input && input.value === "" && input.dataset.before) {
      input.value = input.dataset.before;
      keepDraft(input);
      event.preventDefault();
    }
  });

  document.addEventListener("input", (event) => {
    if (event.target.id === "strip-field") keepDraft(event.target);
    if (event.target.id === "time-slider") sliderAt = Date.now();
  });

  let tapped = false; // a finger on Keep means it; only a gauge sends a second Enter
  document.addEventListener("pointerdown", (event) => {
    tapped = Boolean(event.target.closest(".phone-keep, [form='strip-form']"));
  }, true);
  document.addEventListener("submit", (event) => {
    const input = event.target.querySelector("#strip-field");
    if (!input) return;
    const meant = tapped;
    tapped = false;
    if (input.value.trim() === "" && !meant && Date.now() - keptAt < QUIET_MS) {
      event.preventDefault();
      event.stopImmediatePropagation();
    }
  }, true);

  /* a tap on a drawn dial puts its angle into the strip: counter-clockwise from the right, as drawn */
  const toAngle = (event, dial) => {
    const input = field();
    if (!input) return;
    const box = dial.getBoundingClientRect();
    const across = event.clientX - box.left - box.width / 2;
    const up = box.top + box.height / 2 - event.clientY;
    input.value = String((Math.round((Math.atan2(up, across) * 180) / Math.PI) + 360) % 360);
    keepDraft(input);
    input.focus({ preventScroll: true });
  };

  document.addEventListener("click", (event) => {
    const dial = event.target.closest("[data-dial]");
    if (dial) toAngle(event, dial);
    const key = event.target.closest("[data-panel]");
    if (key) showPanel(key.dataset.panel);
    if (event.target.closest("#flash-off")) hideFlash();
  });

  /* htmx */
  let writing = 0; // requests under way that write
  let wroteAt = 0; // a look at what others wrote that began before the last write shows an old page
  let lookedAt = 0;
  let sent = ""; // what the strip sent; letters typed behind it belong to the next ask
  let behind = "";
  document.addEventListener("htmx:configRequest", (event) => {
    if (openPanel) event.detail.headers["X-Panel"] = openPanel;
  });
  document.addEventListener("htmx:beforeRequest", (event) => {
    const { elt, xhr, target, requestConfig } = event.detail;
    if (elt.matches(".strip-entry")) sent = field() ? field().value : "";
    if (requestConfig.verb === "post") {
      writing += 1;
      if (!elt.matches(".strip-entry, .strip-options")) keptAt = 0; // another act came between: an Enter after it is meant
      xhr.addEventListener("loadend", () => wrote(xhr, target)); // on the request itself: its element may be gone from the page by then
    }
    if (elt.id !== "pulse") return;
    const sliding = Date.now() - sliderAt < 10000;
    if (document.hidden || openPanel || sliding || writing > 0) event.preventDefault();
    else lookedAt = performance.now();
  });
  const wrote = (xhr, target) => {
    writing -= 1;
    wroteAt = performance.now();
    const work = document.getElementById("work");
    const lost = target.id === "work" && !document.contains(target); // two quick acts: the first's answer took the second's place
    if (lost && work && xhr.status === 200) htmx.swap(work, xhr.responseText, { swapStyle: "outerHTML" });
  };
  document.addEventListener("htmx:beforeSwap", (event) => {
    const element = event.detail.requestConfig && event.detail.requestConfig.elt;
    if (element && element.id === "pulse" && (writing > 0 || lookedAt < wroteAt)) event.detail.shouldSwap = false;
    const input = field();
    if (element && element.matches(".strip-options")) keptAt = Date.now();
    if (!input || !element || !element.matches(".strip-entry")) return;
    if (event.detail.xhr.getResponseHeader("X-Kept") === "yes") {
      store(draftName(input), null);
      if (sent.trim() !== "") keptAt = Date.now();
      behind = input.value.startsWith(sent) ? input.value.slice(sent.length) : "";
    }
  });
  document.addEventListener("htmx:afterSettle", () => {
    const input = field();
    if (input && behind && !input.value) input.value = behind;
    behind = "";
    bringDraft();
    restorePanel();
    restoreDrawer();
    watchTimers();
    focusStrip();
  });
  document.addEventListener("htmx:sendError", () => say("Not kept: no connection to the shop's machine. What you typed stays here; press Enter again."));
  document.addEventListener("htmx:responseError", (event) => {
    if (event.detail.xhr.status >= 500) say("Not kept: Stator broke on that. What you typed stays here; press Enter again.");
  });
  document.addEventListener("open-panel", (event) => {
    const name = event.detail.value || event.detail;
    if (name === "timer") toggleAlarm();
    else showPanel(name);
  });
  const say = (words) => {
    const place = document.getElementById("strip-words");
    if (!place) return;
    place.replaceChildren(Object.assign(document.createElement("p"), { textContent: words }));
  };

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
    const now = Date.now() + skew;
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
      wake = null; // refused on a flat battery or without TLS; the timers ring all the same
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
      key.querySelector("span").textContent = on ? "on" : "off";
    });
  };
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-alarm]");
    if (key) toggleAlarm(key.dataset.alarm);
  });
  const hideFlash = () => {
    document.getElementById("flash").hidden = true;
    focusStrip();
  };
  const ring = (words) => {
    if (alarmOn("flash")) {
      document.getElementById("flash-words").textContent = words;
      document.getElementById("flash").hidden = false;
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
    paper();
    const clock = document.querySelector("[data-server-now]");
    if (clock) skew = Number(clock.dataset.serverNow) - Date.now();
    bringDraft();
    focusStrip();
    watchTimers();
    showAlarm();
    setInterval(watchTimers, 500);
    document.addEventListener("htmx:afterSettle", showAlarm);
  });
})();
