/* What a page keeps on this device: read with a name, written with a value, forgotten with null. */
(() => {
  "use strict";
  window.onThisDevice = (name, value) => {
    try {
      if (value === undefined) return localStorage.getItem(name);
      if (value === null) localStorage.removeItem(name);
      else localStorage.setItem(name, value);
    } catch (error) {
      return null; // private windows have no store; the page works without it
    }
    return value;
  };
})();
