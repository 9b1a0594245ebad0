/* Small manners of the forms, as Alpine components. */
(() => {
  const hand = (within) => {
    const wrong = within.querySelector(".field.wrong :is(input, select, textarea)");
    if (!wrong) return false; // what was refused is in hand: typing replaces it
    wrong.focus();
    if (wrong.select && wrong.type !== "file") wrong.select();
    return true;
  };
  document.addEventListener("DOMContentLoaded", () => hand(document));
  document.addEventListener("htmx:afterSettle", ({ target }) => {
    if (!target.matches(".part") || hand(target)) return;
    const first = target.querySelector("form :is(input:not([type=hidden]), select, textarea)") || target.querySelector(".part-link, .textlink");
    first?.focus(); // a form opened in place is gone on with; one that was kept gives the next
  });
})();

/* what is typed into a form and not sent is there again when the browser's Back or a reload brings the page back */
(() => {
  const NAME = `typed ${document.body.dataset.person} ${window.location.pathname}`; // what one person typed is not shown to another
  const fields = () => [...document.querySelectorAll("form[method=post] :is(input, select, textarea)[name]")].filter(
    (field) => !field.closest("#work, form[hx-trigger]") && !["hidden", "password", "file", "submit"].includes(field.type),
  );
  const keyOf = (field, all) => `${field.name} ${all.filter((each) => each.name === field.name).indexOf(field)}`;
  const valueOf = (field) => (["checkbox", "radio"].includes(field.type) ? field.checked : field.value);
  const keep = () => {
    const all = fields();
    try {
      sessionStorage.setItem(NAME, JSON.stringify(Object.fromEntries(all.map((field) => [keyOf(field, all), valueOf(field)]))));
    } catch (error) {
      return; // private windows have no store; the page works without it
    }
  };
  const bring = () => {
    const came = performance.getEntriesByType("navigation")[0]?.type;
    const refused = document.querySelector(".field.wrong");
    let typed = {};
    try {
      typed = JSON.parse(sessionStorage.getItem(NAME) || "{}");
      if (came !== "back_forward" && came !== "reload" && !refused) sessionStorage.removeItem(NAME);
    } catch (error) {
      return;
    }
    if (refused || (came !== "back_forward" && came !== "reload")) return;
    const all = fields();
    all.forEach((field) => {
      const value = typed[keyOf(field, all)];
      if (value === undefined || value === valueOf(field)) return;
      if (["checkbox", "radio"].includes(field.type)) field.checked = value;
      else field.value = value;
      ["input", "change"].forEach((name) => field.dispatchEvent(new Event(name, { bubbles: true })));
    });
  };
  document.addEventListener("input", (event) => {
    if (event.target.closest("form[method=post]") && !event.target.closest("#work")) keep();
  });
  document.addEventListener(document.querySelector("[x-data]") ? "alpine:initialized" : "DOMContentLoaded", bring);
  window.addEventListener("pageshow", (event) => {
    if (event.persisted && document.getElementById("work")) window.location.reload(); // Back shows the page as it is now
  });
})();

document.addEventListener("alpine:init", () => {
  Alpine.data("bookIn", () => ({
    known: "",
    marked: true,
    ordered: "",
    asked: false,
    init() {
      this.known = this.$refs.known ? this.$refs.known.value : "";
      const outside = this.$root.querySelector("[name$=outside_mm]");
      this.marked = !(outside && outside.value);
      const chosen = this.$root.querySelector("[name=work_order]:checked");
      this.ordered = chosen ? chosen.value : "";
      const marking = this.$root.querySelector("[name$=designation]");
      this.asked = Boolean(marking && marking.value);
    },
    get isNew() {
      return this.known === "";
    },
    get seatWanted() {
      return this.asked || (["heat", "cold"].includes(this.ordered) && this.isNew);
    },
    get seatLater() {
      return !this.seatWanted && this.isNew;
    },
    pick(event) {
      this.known = event.target.value;
    },
    order(event) {
      this.ordered = event.target.value;
    },
    wantSeat() {
      this.asked = true;
    },
    measure() {
      this.marked = !this.marked;
    },
  }));
});
