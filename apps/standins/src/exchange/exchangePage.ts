/** A page of what a stand-in holds: its rig, where it came from, what is selected, who is joined. */
export const exchangePage = (name: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}: its rig</title>
<style>
  body { margin: 0; background: #0b0a08; color: #efe7d8; font: 16px/1.4 sans-serif; padding: 14px; }
  h1 { font-size: 18px; margin: 0 0 4px; }
  p { margin: 0 0 8px; color: #b9ae9a; }
  table { border-collapse: collapse; width: 100%; }
  td, th { text-align: left; padding: 4px 10px 4px 0; border-bottom: 1px solid #2a251d; font-weight: 400; }
  th { color: #b9ae9a; }
  tr.selected td { background: #3a2f12; }
  td.n { font-variant-numeric: tabular-nums; }
</style>
</head>
<body>
<h1>${name}, a stand-in: the rig that it holds</h1>
<p id="from" role="status">Looking…</p>
<p id="joined"></p>
<table><thead><tr><th>Lamp</th><th>Name</th><th>Address</th><th>Mode</th></tr></thead><tbody id="rig"></tbody></table>
<script>
const $ = (id) => document.getElementById(id);
function cell(row, text, className) {
  const td = row.insertCell();
  td.textContent = text;
  if (className) td.className = className;
}
let shown = '';
async function tell() {
  const held = await (await fetch('held')).json();
  $('from').textContent = held.lamps + ' lamps: ' + (held.from ? 'from ' + held.from + ', ' : '') + held.comment + '.';
  $('joined').textContent =
    (held.joined.length ? 'Joined: ' + held.joined.join(', ') + '. ' : 'No station has joined. ') +
    (held.selected.length ? 'Selected: ' + held.selected.join(', ') + '.' : 'Nothing is selected.');
  const next = JSON.stringify([held.rig, held.selected]);
  if (next === shown) return;
  shown = next;
  const chosen = new Set(held.selected);
  $('rig').replaceChildren();
  for (const one of held.rig) {
    const row = $('rig').insertRow();
    if (chosen.has(one.number)) row.className = 'selected';
    cell(row, one.number, 'n');
    cell(row, one.name);
    cell(row, one.universe ? one.universe + '/' + one.channel : 'none', 'n');
    cell(row, one.mode);
  }
}
setInterval(() => tell().catch(() => ($('from').textContent = 'It does not answer.')), 500);
tell();
</script>
</body>
</html>
`;
