/* What a page keeps on this device: read with a name, written with a value, forgotten with null. And what scripts say, which the page brings along. */
(() => {
  "use strict";
  window.deviceStorage = (name, value) => {
    try {
      if (value === undefined) return localStorage.getItem(name);
      if (value === null) localStorage.removeItem(name);
      else localStorage.setItem(name, value);
    } catch (error) {
      return null; // private windows have no store; the page works without it
    }
    return value;
  };

  /* a sentence that the page brought along in its reader's language, with its values set in */
  let sentences = null;
  window.scriptMessage = (name, values = {}) => {
    sentences ??= JSON.parse(document.getElementById("page-words")?.textContent || "{}");
    return Object.entries(values).reduce((text, [key, value]) => text.replace(`{${key}}`, value), sentences[name] || name);
  };
})();
