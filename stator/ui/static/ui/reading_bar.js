/* The reading strip: its focus, its keys, and what is typed while an answer is on its way. One write at a time goes to the server;
   what comes meanwhile waits its turn, each line for the question that is then asked. A refusal stops the line: what waited goes back to
   the strip, to be sent by hand. No rule of the trade lives here. */
(() => {
  "use strict";

  const QUIET_MS = 500; // an empty Enter this soon after another is a gauge's second Enter
  let under = null; // the write under way: what the strip sent with it, if it came from there
  let waiting = []; // what comes after it: lines of the strip, and acts as their forms stood
  let rest = []; // lines typed and not sent
  let gauge = ""; // digits typed where no number is asked
  let sentAt = 0; // the last line sent; 0 once another act came between
  let wroteAt = 0; // a look at what others wrote that began before the last write shows an old page
  let lookedAt = 0;
  let tapped = false; // a finger on Keep means it; only a gauge sends a second Enter
  let queued = false; // what is submitted now comes out of the line
  let sliderAt = 0;

  const field = () => document.getElementById("strip-field");
  const fine = () => window.matchMedia("(pointer: fine)").matches;
  const store = window.deviceStorage;
  const words = window.scriptMessage;

  /* what is typed survives a reload, a lost network and a signed-out session */
  const draftName = (input) => `draft ${input.form.action} ${input.dataset.ask}`;
  const restName = () => `rest ${window.location.pathname}`;
  const saveDraft = (input) => store(draftName(input), input.value || null);
  const saveUnsentLines = () => {
    const all = [...(under && under.text ? [under.text] : []), ...lines(), ...rest];
    store(restName(), all.length ? JSON.stringify(all) : null);
  };
  const restoreDraft = () => {
    const input = field();
    if (!input || input.value) return;
    const draft = store(draftName(input));
    if (draft && draft === input.dataset.before) store(draftName(input), null); // kept already, by a plain form post
    else if (draft) input.value = draft;
  };
  const restoreUnsentLines = () => {
    let left = [];
    try {
      left = JSON.parse(store(restName()) || "[]");
    } catch (error) {
      left = [];
    }
    const latest = document.querySelector("[data-latest]");
    if (left.length && latest && latest.dataset.latest === left[0]) left.shift(); // it was on its way when the page was left, and arrived
    rest = left.slice(0, 40);
    showRest();
  };

  const say = (sentence) => {
    const place = document.getElementById("strip-words");
    if (place) place.replaceChildren(Object.assign(document.createElement("p"), { textContent: sentence }));
    showRest();
  };

  /* lines that were typed and not sent: each a key that puts it back into the field */
  const showRest = () => {
    const place = document.getElementById("strip-words");
    saveUnsentLines();
    place?.querySelectorAll(".not-sent, .in-line").forEach((old) => old.remove());
    if (place && lines().length) {
      place.append(Object.assign(document.createElement("p"), { className: "note in-line", textContent: words("in_line", { lines: lines().join(", ") }) }));
    }
    window.later.show();
    if (!place || rest.length === 0) return;
    const line = Object.assign(document.createElement("p"), { className: "note not-sent", textContent: `${words("not_sent")} ` });
    rest.forEach((text, index) => {
      const key = Object.assign(document.createElement("button"), { type: "button", className: "button", textContent: text });
      key.addEventListener("click", () => takeBack(index));
      line.append(key);
    });
    const away = Object.assign(document.createElement("button"), { type: "button", className: "textlink", textContent: words("forget") });
    away.addEventListener("click", () => {
      rest = [];
      showRest();
      focus();
    });
    line.append(away);
    place.append(line);
  };
  const takeBack = (index) => {
    const input = field();
    if (!input) return;
    const [text] = rest.splice(index, 1);
    if (input.value) rest.unshift(input.value);
    input.value = text;
    saveDraft(input);
    showRest();
    focus();
  };

  const focus = () => {
    const input = field();
    if (!input || !fine()) return;
    const active = document.activeElement;
    if (!active || active === document.body || active === input || active.closest(".not-sent")) {
      input.focus({ preventScroll: true });
      if (input.hasAttribute("data-suspect") || input.dataset.refused) input.select(); // typing replaces what looks mistyped or was refused
      else input.setSelectionRange(input.value.length, input.value.length);
    }
  };

  /* keys: a gauge types wherever the cursor happens to be, and its digits go to the strip */
  const typesText = (element) =>
    element.matches("textarea, select, input:not([type=range]):not([type=checkbox]):not([type=radio])") && element.id !== "strip-field";
  const isDigit = (event) => /^[0-9+\-.,−]$/.test(event.key);

  /* a few answers: their first letters go to one, Enter then takes it; nothing is taken by a stray Enter. What begins none of them is a
     word or a station's name, and goes into a field of its own */
  let letters = "";
  const toOption = (event) => {
    if (event.key === "Escape" || event.key === "Tab") letters = "";
    if (typesText(document.activeElement) || !/^[a-z?]$/i.test(event.key)) return;
    const options = [...document.querySelectorAll(".strip-options .button")];
    const starts = (text) => options.filter((option) => option.textContent.trim().toLowerCase().startsWith(text));
    const letter = event.key.toLowerCase();
    const again = letters && [...letters].every((each) => each === letter);
    letters = starts(letters + letter).length || !again ? letters + letter : letter; // the same letter again goes to the next of them
    const found = starts(letters);
    event.preventDefault();
    if (found.length) {
      found[(found.indexOf(document.activeElement) + 1) % found.length].focus();
      return;
    }
    const word = document.getElementById("word-field");
    if (!word) return;
    word.form.hidden = false;
    word.value = letters;
    letters = "";
    word.focus({ preventScroll: true });
    word.setSelectionRange(word.value.length, word.value.length);
  };

  /* where the page says so, Enter alone gives the usual answer; a second Enter right behind it gives none, nor does a gauge's */
  const withoutField = (event) => {
    if (isDigit(event) && !typesText(document.activeElement)) gauge += event.key;
    if (event.key !== "Enter") return toOption(event);
    if (gauge) {
      rest.push(gauge);
      gauge = "";
      say(words("a_choice"));
      event.preventDefault();
      return;
    }
    letters = "";
    const usual = document.querySelector("[data-enter]");
    if (!usual || document.activeElement !== document.body) return;
    event.preventDefault();
    if (!event.repeat && Date.now() - sentAt > QUIET_MS) usual.click();
  };

  const withField = (event, input) => {
    const active = document.activeElement;
    const word = /^[a-z?]$/i.test(event.key) && active === document.body;
    if (active !== input && ((isDigit(event) && !typesText(active)) || word)) input.focus({ preventScroll: true });
    if (event.key === "Enter" && active === document.body) {
      input.focus({ preventScroll: true });
      input.form.requestSubmit(); // a gauge's Enter counts wherever the cursor is
      event.preventDefault();
    }
    if (event.key === "ArrowUp" && document.activeElement === input && input.value === "") {
      if (rest.length) takeBack(0);
      else input.value = input.dataset.before || document.querySelector("[data-again]")?.dataset.again || "";
      saveDraft(input);
      event.preventDefault();
    }
  };

  document.addEventListener("keydown", (event) => {
    if (event.target.id === "word-field" && (event.key === "Escape" || (event.key === "Backspace" && event.target.value.length < 2))) {
      event.target.value = "";
      event.target.form.hidden = true;
      event.preventDefault();
      return;
    }
    if (event.ctrlKey || event.metaKey || event.altKey || !document.getElementById("work")) return;
    const input = field();
    const units = document.getElementById("units-form");
    if (event.key === "=" && units && !(input && input.value) && !typesText(document.activeElement) && !under) { // metric to inch and back
      event.preventDefault();
      units.requestSubmit();
      return;
    }
    if (input) withField(event, input);
    else withoutField(event);
  });

  document.addEventListener("input", (event) => {
    if (event.target.id === "strip-field") {
      saveDraft(event.target);
      delete event.target.dataset.refused;
    }
    if (event.target.id === "time-slider") sliderAt = Date.now();
  });
  document.addEventListener("pointerdown", (event) => {
    tapped = Boolean(event.target.closest(".phone-keep, [form='strip-form']"));
  }, true);

  /* the same size as at the place before: one tap keeps it */
  document.addEventListener("click", (event) => {
    const key = event.target.closest("[data-again]");
    const input = field();
    if (!key || !input) return;
    input.value = key.dataset.again;
    saveDraft(input);
    input.form.requestSubmit();
  });

  /* a tap on a drawn dial puts its angle into the strip: counter-clockwise from the right, as drawn */
  document.addEventListener("click", (event) => {
    const dial = event.target.closest("[data-dial]");
    const input = field();
    if (!dial || !input) return;
    const box = dial.getBoundingClientRect();
    const across = event.clientX - box.left - box.width / 2;
    const up = box.top + box.height / 2 - event.clientY;
    input.value = String((Math.round((Math.atan2(up, across) * 180) / Math.PI) + 360) % 360);
    saveDraft(input);
    input.focus({ preventScroll: true });
  });

  /* the line */
  const lines = () => waiting.filter((each) => each.text).map((each) => each.text);
  const stop = (event) => {
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  const isWrite = (element) => Boolean(element.closest("#work") && element.matches("form[hx-post]"));

  const lineUp = (event, element) => {
    stop(event);
    if (element.id !== "strip-form") {
      const values = Object.fromEntries(new FormData(element, event.submitter || undefined).entries());
      waiting.push({ address: element.getAttribute("hx-post"), values });
      return;
    }
    const input = field();
    const meant = tapped;
    tapped = false;
    if (input.value.trim() === "") {
      if (meant || Date.now() - sentAt >= QUIET_MS) waiting.push({ halt: true });
      return;
    }
    waiting.push({ text: input.value, heard: input.form.elements.heard.value });
    sentAt = Date.now();
    input.value = "";
    input.form.elements.heard.value = "";
    saveDraft(input);
    showRest();
  };

  document.addEventListener("submit", (event) => {
    if (!isWrite(event.target)) return;
    if (under) return lineUp(event, event.target);
    if (event.target.id !== "strip-form" || queued) return;
    const meant = tapped;
    tapped = false;
    if (field().value.trim() === "" && !meant && Date.now() - sentAt < QUIET_MS) stop(event);
  }, true);
  document.addEventListener("change", (event) => {
    const element = event.target.closest("form[hx-trigger=change]");
    if (element && under && isWrite(element)) lineUp(event, element);
  }, true);

  const next = () => {
    const task = waiting.shift();
    if (!task) return;
    const input = field();
    if (task.address) {
      htmx.ajax("POST", task.address, { target: "#work", swap: "morph:outerHTML", values: task.values });
      return;
    }
    if (task.halt || !input) { // an Enter alone answers no question that was not yet asked, and no number answers a choice
      rest.push(...(task.text ? [task.text] : []), ...lines());
      waiting = [];
      if (task.halt) say(words("enter_on_its_way"));
      else showRest();
      return;
    }
    const typed = input.value;
    input.value = task.text;
    input.form.elements.heard.value = task.heard || "";
    queued = true;
    input.form.requestSubmit();
    queued = false;
    input.value = typed;
  };

  /* what was sent and not kept comes back into the field; what waited behind it, and what is typed since, waits to be sent by hand */
  const giveBack = (text, typed) => {
    const input = field();
    rest = [...lines(), ...(typed ? [typed] : []), ...rest];
    waiting = [];
    if (input) {
      input.value = text;
      if (text) input.dataset.refused = "yes";
      saveDraft(input);
    } else if (text) rest.unshift(text);
  };

  document.addEventListener("htmx:configRequest", (event) => {
    const panel = document.querySelector(".panel:not([hidden])");
    if (panel) event.detail.headers["X-Panel"] = panel.id;
    const plate = document.querySelector(".plate[data-seen]");
    const { parameters, verb } = event.detail;
    if (verb === "post" && plate && parameters.seen !== undefined) parameters.seen = plate.dataset.seen; // the call as it stands, which changes by itself
  });
  document.addEventListener("htmx:beforeRequest", (event) => {
    const { elt, xhr, requestConfig } = event.detail;
    if (elt.id === "pulse") {
      const busy = document.hidden || document.querySelector(".panel:not([hidden])") || Date.now() - sliderAt < 10000 || under;
      if (busy) event.preventDefault();
      else lookedAt = performance.now();
      return;
    }
    const target = event.detail.target;
    if (requestConfig.verb !== "post" || !target || target.id !== "work") return;
    const fromStrip = elt.id === "strip-form";
    const input = field();
    const sent = fromStrip ? Object.fromEntries(requestConfig.formData.entries()) : null;
    under = { text: fromStrip && input ? input.value : "", kept: true, sent };
    document.body.dataset.sending = "1"; // a gauge's next reading waits
    if (fromStrip) {
      if (under.text.trim() !== "") sentAt = Date.now();
      input.value = "";
      input.form.elements.heard.value = "";
      if (under.text) input.placeholder = under.text;
      saveUnsentLines();
    } else if (!elt.matches(".strip-options")) sentAt = 0; // another act came between: an Enter after it is meant
    xhr.addEventListener("loadend", () => setTimeout(() => answered(xhr), 0)); // after the answer is in its place
  });
  const answered = (xhr) => {
    if (!under) return;
    const { text, kept, sent } = under;
    const lost = xhr.status === 0 || xhr.status >= 400;
    under = null;
    delete document.body.dataset.sending;
    wroteAt = performance.now();
    if (lost) {
      const typed = field() ? field().value : "";
      if (xhr.status === 0 && sent && window.later.takes({ ...sent, text }, lines())) { // it waits on this device, and the next is asked
        waiting = [];
        if (typed && field()) field().value = typed;
        showRest();
        return;
      }
      giveBack(text, typed);
      if (xhr.status === 0) say(words("no_connection"));
      else if (xhr.getResponseHeader("HX-Retarget")) showRest(); // the server has said why
      else say(words("broke"));
      return;
    }
    if (!kept && waiting.length) {
      rest.push(...lines());
      const acts = waiting.filter((each) => each.address).length;
      waiting = [];
      if (acts) say(words("not_done"));
    }
    showRest();
    next();
  };

  let tail = null; // what stood in the field when a new page came: for which question, and the answer it waits for
  document.addEventListener("htmx:beforeSwap", (event) => {
    const { xhr, requestConfig, target } = event.detail;
    const element = requestConfig && requestConfig.elt;
    const input = field();
    if (element && element.id === "pulse" && (under || lookedAt < wroteAt)) {
      event.detail.shouldSwap = false;
      return;
    }
    if (target.id !== "work" || !event.detail.shouldSwap) return;
    const here = document.getElementById("work");
    if (here && !document.contains(target)) event.detail.target = here; // something else was shown meanwhile
    const kept = xhr.getResponseHeader("X-Kept") !== "no";
    if (under) under.kept = kept;
    tail = { typed: input ? input.value : "", ask: input ? input.dataset.ask : "", kept, own: Boolean(under) };
    if (input && under && kept) store(draftName(input), null);
    if (element && element.matches(".strip-options")) sentAt = Date.now();
  });
  document.addEventListener("htmx:afterSettle", () => {
    if (under && !tail) return; // something else on the page has answered: what was typed is on its way
    const input = field();
    if (tail) {
      const refused = tail.own && !tail.kept && under && under.text;
      if (refused) giveBack(under.text, tail.typed);
      else if (tail.typed && input && (tail.own || input.dataset.ask === tail.ask)) {
        if (!input.value) input.value = tail.typed;
        saveDraft(input);
      } else if (tail.typed) rest.push(tail.typed); // another device has answered: it is no answer to what is asked now
      tail = null;
    }
    restoreDraft();
    showRest();
    focus();
  });
  document.addEventListener("strip:focus", focus);
  document.addEventListener("strip:note", (event) => {
    const note = Object.assign(document.createElement("p"), { className: "note", textContent: event.detail });
    document.getElementById("strip-words")?.append(note);
  });

  document.addEventListener("DOMContentLoaded", () => {
    restoreDraft();
    restoreUnsentLines();
    focus();
  });
})();
