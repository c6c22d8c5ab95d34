/** A page of what is on an adapter's line: 512 levels, and how the frames come. */
export const adapterPage = (name: string, use: 'out' | 'in'): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}</title>
<style>
  body { margin: 0; background: #0b0a08; color: #efe7d8; font: 16px/1.4 sans-serif; padding: 14px; }
  h1 { font-size: 18px; margin: 0 0 4px; }
  p { margin: 0 0 10px; color: #b9ae9a; }
  ol { list-style: none; margin: 0; padding: 0; display: grid; grid-template-columns: repeat(auto-fill, minmax(44px, 1fr)); gap: 2px; }
  li { background: #1a1712; padding: 3px 4px; text-align: right; font: 13px monospace; }
  li.lit { background: #3a2f12; }
  li b { float: left; color: #b9ae9a; font-weight: 400; font-size: 10px; }
</style>
</head>
<body>
<h1>${name}, a stand-in</h1>
<p>${use === 'out' ? 'What arrives on its line' : 'What the desk behind it sends'}, channel by channel.</p>
<p id="says" role="status">Looking…</p>
<ol id="values"></ol>
<script>
const list = document.getElementById('values');
for (let i = 1; i <= 512; i += 1) {
  const item = document.createElement('li');
  const label = document.createElement('b');
  label.textContent = i;
  item.append(label, document.createTextNode('0'));
  list.append(item);
}
async function tell() {
  const { values, says } = await (await fetch('values')).json();
  document.getElementById('says').textContent = says;
  values.forEach((value, i) => {
    list.children[i].lastChild.data = value;
    list.children[i].className = value > 0 ? 'lit' : '';
  });
}
setInterval(() => tell().catch(() => (document.getElementById('says').textContent = 'It does not answer.')), 250);
tell();
</script>
</body>
</html>
`;
