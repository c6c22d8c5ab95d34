/** A page of the ship from above and from the quay, drawn in the browser from the light that its stand-in tells. */
export const shipPage = (title: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title}</title>
<style>
  body { margin: 0; background: #0b0a08; color: #efe7d8; font: 15px/1.4 sans-serif; }
  header { padding: 10px 14px; }
  h1 { font-size: 17px; margin: 0 0 2px; }
  p { margin: 0; color: #b9ae9a; }
  p.wrong { color: #ef8f7a; }
  canvas { display: block; width: 100%; }
  h2 { font-size: 13px; font-weight: 400; color: #b9ae9a; margin: 6px 14px 2px; }
</style>
</head>
<body>
<header><h1>${title}, a stand-in</h1><p id="says" role="status">Looking…</p></header>
<h2>From above, bow to the right</h2><canvas id="above" height="300"></canvas>
<h2>From the quay</h2><canvas id="quay" height="240"></canvas>
<script>
const BOUNDS = { x: [-12, 20], y: [0, 84], z: [-6, 26] };
let lamps = [];
const says = document.getElementById('says');
function fit(canvas) {
  const ratio = devicePixelRatio || 1;
  const width = canvas.clientWidth, height = canvas.id === 'above' ? 300 : 240;
  canvas.style.height = height + 'px';
  if (canvas.width !== width * ratio) { canvas.width = width * ratio; canvas.height = height * ratio; }
  const ctx = canvas.getContext('2d');
  ctx.setTransform(ratio, 0, 0, ratio, 0, 0);
  ctx.clearRect(0, 0, width, height);
  return { ctx, width, height };
}
function ship(ctx, points) {
  ctx.beginPath();
  points.forEach(([x, y], i) => (i ? ctx.lineTo(x, y) : ctx.moveTo(x, y)));
  ctx.closePath();
  ctx.strokeStyle = '#3a342a';
  ctx.stroke();
}
function draw(light) {
  for (const id of ['above', 'quay']) {
    const { ctx, width, height } = fit(document.getElementById(id));
    const up = id === 'above' ? BOUNDS.x : BOUNDS.z;
    const at = (along, across) => [
      ((along - BOUNDS.y[0]) / (BOUNDS.y[1] - BOUNDS.y[0])) * width,
      height - ((across - up[0]) / (up[1] - up[0])) * height,
    ];
    ctx.globalCompositeOperation = 'source-over';
    if (id === 'above') ship(ctx, [at(2, -9), at(64, -9), at(80, 0), at(64, 9), at(2, 9)]);
    else ship(ctx, [at(2, 3), at(6, -4), at(74, -4), at(82, 9), at(66, 9), at(66, 15), at(58, 15), at(58, 12), at(30, 12), at(28, 20), at(23, 20), at(22, 12), at(2, 8)]);
    ctx.globalCompositeOperation = 'lighter';
    lamps.forEach((lamp, i) => {
      const [r, g, b, pan, tilt] = light.subarray(i * 5, i * 5 + 5);
      const [x, y] = at(lamp.y, id === 'above' ? lamp.x : lamp.z);
      const bright = Math.max(r, g, b) / 255;
      ctx.fillStyle = 'rgba(239,231,216,0.18)';
      ctx.fillRect(x - 1, y - 1, 2, 2);
      if (bright < 0.01) return;
      const colour = (alpha) => 'rgba(' + r + ',' + g + ',' + b + ',' + alpha + ')';
      if (lamp.moves) {
        const turn = (pan / 255 - 0.5) * lamp.turn * Math.PI / 180;
        const lean = (tilt / 255 - 0.5) * lamp.lean * Math.PI / 180;
        const long = 46;
        const dx = Math.sin(lean) * Math.cos(turn) * long;
        const dy = id === 'above' ? Math.sin(lean) * Math.sin(turn) * long : Math.cos(lean) * long;
        const beam = ctx.createLinearGradient(x, y, x + dx, y + dy);
        beam.addColorStop(0, colour(0.8 * bright));
        beam.addColorStop(1, colour(0));
        ctx.strokeStyle = beam;
        ctx.lineWidth = 4;
        ctx.beginPath(); ctx.moveTo(x, y); ctx.lineTo(x + dx, y + dy); ctx.stroke();
      }
      const glow = ctx.createRadialGradient(x, y, 0, x, y, 9);
      glow.addColorStop(0, colour(0.9));
      glow.addColorStop(1, colour(0));
      ctx.fillStyle = glow;
      ctx.beginPath(); ctx.arc(x, y, 9, 0, 7); ctx.fill();
    });
  }
}
async function frame() {
  try {
    draw(new Uint8Array(await (await fetch('light')).arrayBuffer()));
  } catch { says.textContent = 'It does not answer.'; }
  setTimeout(frame, 80);
}
async function tell() {
  const state = await (await fetch('state')).json();
  if (lamps.length !== state.lamps.length) lamps = state.lamps;
  says.className = state.wrong ? 'wrong' : '';
  says.textContent = state.says;
}
tell().then(frame);
setInterval(() => tell().catch(() => undefined), 1000);
</script>
</body>
</html>
`;
