/* What takes longer than a moment: how far it is stands beside what asked for it. Without this the same addresses answer in one go. */
(() => {
  "use strict";
  const LOOK_MS = 150;
  let busy = false;

  const box = () => document.getElementById("waiting");

  const say = (words, share, wrong) => {
    const here = box();
    here.hidden = !words;
    here.querySelector("span").textContent = words;
    here.classList.toggle("words", Boolean(wrong));
    const bar = here.querySelector("progress");
    bar.hidden = Boolean(wrong);
    if (!Number.isFinite(share)) bar.removeAttribute("value"); // not known how far
    else bar.value = share;
  };

  const over = (words, wrong) => {
    busy = false;
    say(words, 1, wrong);
  };

  /* follow what is being made until it is there; `otherwise` is the way without waiting, when nobody knows of it */
  const follow = async (begun, otherwise) => {
    if (begun.refused) return over(begun.refused, true);
    for (;;) {
      let answer = null;
      try {
        answer = await fetch(begun.address, { headers: { "X-Partial": "1" } });
      } catch {
        return over(window.scriptMessage("no_answer"), true);
      }
      if (!answer.ok) {
        over("");
        return otherwise();
      }
      const said = await answer.json();
      if (said.refused) return over(said.refused, true);
      say(said.words, said.share);
      if (said.goes) {
        over(said.words);
        return location.assign(said.goes);
      }
      await new Promise((done) => setTimeout(done, LOOK_MS));
    }
  };

  document.addEventListener("click", async (event) => {
    const link = event.target.closest("a[data-waits]");
    if (!link || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
    event.preventDefault();
    if (busy) return;
    busy = true;
    say(link.dataset.waits, null);
    const plainly = () => location.assign(link.href);
    try {
      const answer = await fetch(link.href, { headers: { "X-Partial": "1" } });
      if (!answer.ok) throw new Error(answer.status);
      await follow(await answer.json(), plainly);
    } catch {
      over("");
      plainly();
    }
  });

  document.addEventListener("submit", (event) => {
    const form = event.target.closest("form[data-waits]");
    if (!form) return;
    event.preventDefault();
    if (busy) return;
    busy = true;
    say(form.dataset.waits, 0);
    const sending = new XMLHttpRequest();
    sending.upload.onprogress = (sent) => say(form.dataset.waits, sent.lengthComputable ? sent.loaded / sent.total : null);
    sending.onerror = () => over(window.scriptMessage("no_answer_file"), true);
    sending.onload = () => {
      const plainly = () => form.submit();
      if (sending.status !== 200) {
        over("");
        return plainly();
      }
      follow(JSON.parse(sending.responseText), plainly);
    };
    sending.open("POST", form.action);
    sending.setRequestHeader("X-Partial", "1");
    sending.send(new FormData(form));
  });

  window.addEventListener("pageshow", () => {
    if (!busy && box()) say("");
  });
})();
