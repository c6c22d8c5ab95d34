/** Prints one part of a screen as a sheet, without the frame around it. */
const PAPER = 'paper';

/** `id`: of the element that is the sheet. */
export function printSheet(id: string): void {
  const sheet = document.getElementById(id);
  if (!sheet) return;
  const paper = document.createElement('div');
  paper.id = PAPER;
  paper.append(sheet.cloneNode(true));
  document.body.append(paper);
  window.print();
  paper.remove();
}
