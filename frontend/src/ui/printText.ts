/** Print a text by itself, whatever else is on the screen. */
export function printText(text: string): void {
  const page = document.createElement("pre");
  page.className = "print-text";
  page.textContent = text;
  document.body.append(page);
  document.body.classList.add("prints-text");
  window.print();
  document.body.classList.remove("prints-text");
  page.remove();
}
