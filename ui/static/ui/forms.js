/* Small manners of the forms, as Alpine components. */
document.addEventListener("DOMContentLoaded", () => {
  const wrong = document.querySelector(".field.wrong input, .field.wrong select, .field.wrong textarea");
  if (!wrong) return; // what was refused is in hand: typing replaces it
  wrong.focus();
  if (wrong.select && wrong.type !== "file") wrong.select();
});
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
      return this.asked || (this.ordered === "heat" && this.isNew);
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
