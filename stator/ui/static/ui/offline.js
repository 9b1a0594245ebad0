/* Readings typed while the shop's machine cannot be reached. Each waits on this device under the key that it was first sent with, and is
   sent once and in order when the machine answers: by this page, or by the next that this person opens. No rule of the trade lives here. */
(() => {
  "use strict";

  const LOOK_MS = 3000;
  const PAGES_FOR_MS = 3 * 24 * 3600 * 1000; // how long a page that was taken along can be opened without the machine
  const store = window.deviceStorage;
  const words = window.scriptMessage;
  let along = null; // what this page took along: its questions, and where the answers go
  let mine = []; // what waits, of the person who reads here, in its order
  let busy = false;
  let sent = 0; // since something was typed here
  let notes = []; // what the server said of them
  let offered = false; // a choice is asked, and the machine does not answer
  let order = 0;
  const storing = new Set(); // ids

  const inShell = () => document.body.hasAttribute("data-away");
  const person = () => document.body.dataset.person || (inShell() && store("person")) || "";
  const strip = () => document.querySelector(".strip");
  const field = () => document.getElementById("strip-field");
  const isAway = () => Boolean(strip()?.classList.contains("away"));
  const skew = () => Number(store("skew") || 0);

  /* the store of this device; a private window may have none, then what waits lasts as long as the page */
  const opening = new Promise((done) => {
    try {
      const asked = indexedDB.open("stator", 1);
      asked.onupgradeneeded = () => {
        asked.result.createObjectStore("waiting", { keyPath: "id" });
        asked.result.createObjectStore("along", { keyPath: "name" });
      };
      asked.onsuccess = () => done(asked.result);
      asked.onerror = () => done(null);
    } catch (error) {
      done(null);
    }
  });
  const inStore = async (name, does) => {
    const db = await opening;
    if (!db) return null;
    return new Promise((done) => {
      const act = db.transaction(name, "readwrite", { durability: "strict" });
      const asked = does(act.objectStore(name));
      act.oncomplete = () => done(asked.result);
      act.onabort = () => done(null);
    });
  };

  const readAll = async () => {
    const all = await inStore("waiting", (kept) => kept.getAll());
    if (!all) return;
    const onTheirWay = mine.filter((each) => storing.has(each.id)); // into the store: it does not tell of them yet
    const known = all.filter((each) => each.person === person() && !storing.has(each.id));
    mine = [...known, ...onTheirWay].sort((one, other) => one.order - other.order);
  };
  const keep = async (entry) => {
    mine = [...mine.filter((each) => each.id !== entry.id), entry].sort((one, other) => one.order - other.order);
    storing.add(entry.id);
    await inStore("waiting", (kept) => kept.put(entry));
    storing.delete(entry.id);
  };
  const forget = (entry) => {
    mine = mine.filter((each) => each.id !== entry.id);
    return inStore("waiting", (kept) => kept.delete(entry.id));
  };

  /* which question comes next: the order that the server gave, less what was answered here */
  const unsent = () => mine.filter((each) => !each.refused);
  const here = () => unsent().filter((each) => along && each.page === along.page);
  const nextKey = () => {
    const answered = here().map((each) => each.values.ask);
    for (const key of along.turn) {
      const question = along.questions[key];
      if (question.repeats && !here().some((each) => each.values.ask === key && each.values.text === "")) return key;
      const at = answered.indexOf(key);
      if (!question.repeats && at < 0) return key;
      if (at >= 0) answered.splice(at, 1);
    }
    return null;
  };

  const newKey = () => [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
  const draftName = (key) => `draft ${new URL(along.address, window.location.href)} ${key}`;

  /* the strip asks without the machine */
  const ask = (key = nextKey(), text = "", id = "") => {
    const place = strip();
    const pattern = document.getElementById("strip-away");
    if (!place || !pattern) return;
    if (!isAway() || !field()) {
      place.replaceChildren(pattern.content.cloneNode(true));
      place.classList.add("away");
      place.classList.remove("for-word");
    }
    const form = document.getElementById("strip-form");
    const input = field();
    const label = place.querySelector("label");
    const line = place.querySelector(".strip-ask p");
    form.hidden = key === null;
    if (key === null) {
      label.textContent = words("away_none_left");
      line.textContent = "";
      return;
    }
    const question = along.questions[key];
    label.textContent = question.words;
    line.textContent = [question.where, question.skips && words("away_skips", { means: question.skips })].filter(Boolean).join("; ");
    form.action = along.address;
    place.querySelector(".strip-unit").textContent = question.shown;
    input.classList.toggle("as-words", question.text);
    if (question.text) input.removeAttribute("inputmode");
    else input.inputMode = "decimal";
    input.placeholder = question.example;
    input.dataset.ask = key;
    input.dataset.key = id;
    input.value = text || store(draftName(key)) || "";
    document.dispatchEvent(new CustomEvent("strip:focus"));
  };

  const say = (sentence) => {
    const place = document.getElementById("strip-words");
    place?.querySelectorAll("p:not(.later)").forEach((old) => old.remove());
    if (sentence) place?.prepend(Object.assign(document.createElement("p"), { textContent: sentence }));
  };

  const add = async (values, page) => {
    const question = along.questions[values.ask];
    order = Math.max(order + 1, Date.now());
    const entry = { id: values.client_key, person: person(), page, address: along.address, place: along.place, question: question.words, order, values };
    const stored = keep(entry);
    ask();
    show();
    await stored;
  };

  /* what is no answer to a question but a word to the strip */
  const isCommand = (question, line) => (question.text ? ["skip", "undo"].includes(line) : /^[a-z?]/.test(line));

  /* a line typed without the machine */
  const typed = (text) => {
    const input = field();
    const key = input.dataset.ask;
    const question = along.questions[key];
    const line = text.trim();
    const command = line.toLowerCase();
    const isWord = isCommand(question, command);
    const isSkip = !command || (isWord && "skip".startsWith(command));
    say("");
    if (isWord && !isSkip) {
      const last = here().at(-1);
      if ("undo".startsWith(command) && last) takeBack(last);
      else say(words("away_word"));
      return;
    }
    if (isSkip && !question.empty && !question.repeats) {
      say(words("away_needed"));
      return;
    }
    store(draftName(key), null);
    const before = here().filter((each) => each.values.ask === key).length;
    add({
      ask: key,
      attempt: String(along.attempt),
      saw: String(question.saw + before),
      unit: question.unit,
      text: isSkip ? "" : line,
      client_key: input.dataset.key || newKey(),
      at: String(Date.now() + skew()),
    }, along.page);
  };

  document.addEventListener("submit", (event) => {
    if (event.target.id !== "strip-form" || !isAway()) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    typed(field().value);
  }, true);
  document.addEventListener("input", (event) => {
    if (event.target.id === "strip-field" && isAway()) store(draftName(event.target.dataset.ask), event.target.value || null);
  });

  const takeBack = async (entry) => {
    const forgotten = forget(entry);
    if (along && entry.page === along.page && along.questions[entry.values.ask] && !entry.refused) {
      ask(entry.values.ask, entry.values.text, entry.id); // at once: what is typed next is for this question
      show();
      return;
    }
    await forgotten;
    store(`draft ${new URL(entry.address, window.location.href)} ${entry.values.ask}`, entry.values.text);
    window.location.assign(`${entry.page}?ask=${encodeURIComponent(entry.values.ask)}`);
  };

  /* what waits, and what came back */
  const key = (text, does, title = "") => {
    const button = Object.assign(document.createElement("button"), { type: "button", className: "button", textContent: text || "–", title });
    button.addEventListener("click", does);
    return button;
  };
  const line = (sentence, note, ...keys) => {
    const made = Object.assign(document.createElement("p"), { className: `later${note ? " note" : ""}`, textContent: `${sentence} ` });
    made.append(...keys);
    return made;
  };
  let shown = "";
  const show = (problem = "") => {
    const place = document.getElementById("strip-words") || document.getElementById("later");
    if (!place) return;
    const lines = [];
    const waits = unsent();
    if (waits.length) {
      const first = problem || words("away_waits", { count: waits.length });
      const told = window.isSecureContext ? first : `${first} ${words("away_page")}`;
      lines.push([told, waits, () => line(told, true, ...waits.map((each) => key(each.values.text, () => takeBack(each), `${each.place}, ${each.question}`)))]);
    } else if (sent) {
      const told = [words("away_sent", { count: sent }), ...notes].join(" ");
      lines.push([told, [], () => line(told, true)]);
    }
    mine.filter((each) => each.refused).forEach((each) => {
      const said = words("away_refused", { question: `${each.place}, ${each.question}`, text: each.values.text, said: each.refused });
      lines.push([said, [each], () => line(said, false, key(each.values.text, () => takeBack(each)), key(words("away_forget"), async () => { await forget(each); show(); }))]);
    });
    if (offered && !isAway()) lines.push(["offered", [], () => line("", true, key(words("away_next"), () => { ask(); show(); }))]);
    const now = JSON.stringify(lines.map(([said, entries]) => [said, entries.map((each) => each.id)]));
    if (now === shown && place.querySelectorAll(".later").length === lines.length) return;
    shown = now;
    place.querySelectorAll(".later").forEach((old) => old.remove());
    place.append(...lines.map(([, , make]) => make()));
    if (place.id === "later") place.hidden = lines.length === 0;
  };

  /* sending */
  const post = (entry) => fetch(entry.address, {
    method: "POST",
    redirect: "manual",
    headers: { ...JSON.parse(document.body.getAttribute("hx-headers")), "X-Later": "1", "X-Partial": "1" },
    body: new URLSearchParams(entry.values),
  });
  /* whether a reading that was sent still waits as it was sent: it may have been corrected while its answer was on its way */
  const isUnchanged = (entry) => mine.some((each) => each.id === entry.id && each.order === entry.order);
  const send = async () => {
    await readAll();
    if (busy || document.body.dataset.sending || !unsent().length) return show();
    busy = true;
    let problem = "";
    let arrived = false;
    for (let entry = unsent()[0]; entry && !problem; entry = unsent()[0]) {
      try {
        const answer = await post(entry);
        if (answer.status === 404 && isUnchanged(entry)) await keep({ ...entry, refused: words("away_gone") });
        else if (answer.status === 404) arrived = true;
        else if (answer.status === 401 || answer.status === 403 || answer.type === "opaqueredirect") problem = words("away_sign_in", { count: unsent().length });
        else if (answer.status !== 200) problem = words("away_trouble");
        else {
          const said = await answer.json();
          if (said.kept) sent += 1;
          if (said.kept && said.said) notes.push(said.said);
          if (isUnchanged(entry)) await (said.kept ? forget(entry) : keep({ ...entry, refused: said.said }));
          arrived = true;
        }
      } catch (error) {
        problem = words("away_waits", { count: unsent().length });
      }
    }
    busy = false;
    show(problem);
    if (arrived && !problem) again();
  };
  const again = () => { // the page as it is now
    if (along && document.getElementById("work") && !inShell()) htmx.ajax("GET", along.page, { target: "#work", swap: "morph:outerHTML" });
  };

  /* what this page takes along, for when it is opened without the machine */
  const take = () => {
    const said = document.getElementById("taken-along");
    if (!said) return;
    along = JSON.parse(said.textContent);
    const timers = [...document.querySelectorAll(".tag-timers [data-due]")].map((each) => ({ ...each.dataset }));
    const title = document.querySelector(".tag h1")?.textContent || "";
    const record = { name: `${person()} ${along.page}`, person: person(), saved: Date.now(), title, timers, along };
    inStore("along", (kept) => kept.put(record));
  };
  const forgetOld = async () => {
    const all = (await inStore("along", (kept) => kept.getAll())) || [];
    const old = all.filter((each) => !person() || Date.now() - each.saved > PAGES_FOR_MS); // signed out: nobody opens them here
    old.forEach((each) => inStore("along", (kept) => kept.delete(each.name)));
  };

  /* the page that stands in when the machine does not answer */
  const openShell = async () => {
    const all = ((await inStore("along", (kept) => kept.getAll())) || []).filter((each) => each.person === person());
    const record = all.find((each) => each.along.page === window.location.pathname);
    const list = document.getElementById("away-pages");
    all.sort((one, other) => other.saved - one.saved).forEach((each) => {
      const link = Object.assign(document.createElement("a"), { href: each.along.page, textContent: each.along.place });
      const item = document.createElement("li");
      item.append(link, ` ${each.title}`);
      list.append(item);
    });
    document.getElementById("away-list").hidden = all.length === 0;
    if (!record) return;
    along = record.along;
    document.getElementById("away-place").textContent = along.place;
    document.getElementById("away-title").textContent = record.title;
    record.timers.forEach((each) => {
      const timer = document.createElement("div");
      timer.className = "timer";
      Object.assign(timer.dataset, each);
      timer.append(document.createElement("b"), Object.assign(document.createElement("span"), { textContent: each.words }));
      document.getElementById("away-timers").append(timer);
    });
    strip().hidden = false;
    ask();
  };
  const look = async () => {
    if (!inShell()) return send();
    try {
      if ((await fetch("/alive/", { cache: "no-store" })).ok) window.location.reload();
    } catch (error) {
      show();
    }
  };

  /* the strip's own writes, and the look at what others wrote */
  document.addEventListener("htmx:sendError", (event) => {
    if (event.detail.elt.id !== "pulse" || !along) return;
    offered = Boolean(document.querySelector(".strip-options")) && along.turn.length > 0;
    show();
  });
  document.addEventListener("htmx:afterRequest", (event) => {
    if (!event.detail.successful) return;
    offered = false;
    if (event.detail.elt.id === "pulse" && isAway() && !unsent().length) again();
    else if (unsent().length) send();
  });
  document.addEventListener("htmx:afterSettle", () => {
    take();
    show();
    if (along && here().length) ask(); // something else was sent meanwhile; these still wait
  });
  document.addEventListener("submit", (event) => {
    if (event.target.closest(".strip.away")) return;
    sent = 0;
    notes = [];
  }, true);

  window.later = {
    /* a reading whose sending failed, and what was typed behind it; whether it waits here now */
    takes: (values, lines) => {
      const question = along && along.questions[values.ask];
      if (!question || !values.text || isCommand(question, values.text.trim().toLowerCase())) return false;
      const { csrfmiddlewaretoken, ...said } = values; // of a session that may have ended when it is sent
      add({ ...said, at: String(Date.now() + skew()) }, along.page);
      lines.filter(() => field() && isAway()).forEach(typed);
      return true;
    },
    show,
  };

  const setUp = async () => {
    const clock = document.querySelector("[data-server-now]");
    if (clock) store("skew", String(Number(clock.dataset.serverNow) - Date.now()));
    if (!inShell()) {
      store("person", person() || null);
      take(); // at once: what is typed now may not be sent
    }
    await readAll();
    if (inShell()) await openShell();
    else {
      forgetOld();
      if (along && here().length) ask();
    }
    show();
    look();
    setInterval(look, LOOK_MS);
    window.addEventListener("online", look);
    if (!("serviceWorker" in navigator) || inShell()) return;
    await navigator.serviceWorker.register("/worker.js").catch(() => null);
    const language = document.documentElement.lang;
    if (store("shell") === language) return;
    const shell = await caches.open("stator-away");
    await shell.add("/offline/").then(() => store("shell", language), () => null);
  };
  document.addEventListener("DOMContentLoaded", setUp);
})();
