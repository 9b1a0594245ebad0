/* Small manners of the forms, as Alpine components. */
document.addEventListener("alpine:init", () => {
  Alpine.data("bookIn", () => ({
    known: "",
    marked: true,
    init() {
      this.known = this.$refs.known ? this.$refs.known.value : "";
      const outside = this.$root.querySelector("[name$=outside_mm]");
      this.marked = !(outside && outside.value);
    },
    get isNew() {
      return this.known === "";
    },
    pick(event) {
      this.known = event.target.value;
    },
    measure() {
      this.marked = !this.marked;
    },
  }));
});
