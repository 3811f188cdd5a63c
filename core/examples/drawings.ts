/** Pictures of the demo premises, drawn here: made up like everything in them. Each is an SVG of 1200 by 900. */
export interface DemoPicture {
  readonly job: string
  readonly of: string
  readonly caption: string
  readonly shows: string
  readonly svg: string
  readonly marks: readonly object[]
}

const picture = (body: string, ground = '#3a3f43'): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="1200" height="900" viewBox="0 0 1200 ` +
  `900"><defs><radialGradient id="l" cx="42%" cy="36%" r="75%"><stop offset="0" stop-color="#fff" ` +
  `stop-opacity=".34"/><stop offset="1" stop-color="#000" ` +
  `stop-opacity=".42"/></radialGradient></defs><rect width="1200" height="900" ` +
  `fill="${ground}"/>${body}<rect width="1200" height="900" fill="url(#l)"/></svg>`
const handle = (x: number, y: number, amps: number): string =>
  `<g transform="translate(${x} ${y})"><rect width="420" height="150" rx="10" fill="#1f2327"/><rect ` +
  `x="270" y="40" width="110" height="70" rx="8" fill="#0e1012"/><path d="${digits(amps)}" ` +
  `transform="translate(60 36) scale(1.15)" fill="none" stroke="#eee6d6" stroke-width="9" ` +
  `stroke-linecap="round" stroke-linejoin="round"/></g>`
/** Digits as strokes, so that no font is needed. */
function digits(n: number): string {
  const D: Record<string, string> = {
    0: 'M6 8 h36 v52 h-36 z',
    1: 'M24 8 v52',
    2: 'M6 8 h36 v26 h-36 v26 h36',
    3: 'M6 8 h36 v52 h-36 M12 34 h30',
    4: 'M6 8 v26 h36 M42 8 v52',
    5: 'M42 8 h-36 v26 h36 v26 h-36',
  }
  return [...String(n)]
    .map((d, i) =>
      (D[d] ?? '').replace(/M(\d+) (\d+)/g, (_, x, y) => `M${Number(x) + i * 64} ${y}`),
    )
    .join(' ')
}
const wire = (d: string, color: string, width = 34): string =>
  `<path d="${d}" fill="none" stroke="#00000055" stroke-width="${width + 10}"/><path d="${d}" ` +
  `fill="none" stroke="${color}" stroke-width="${width}" stroke-linecap="round"/><path d="${d}" ` +
  `fill="none" stroke="#ffffff44" stroke-width="${width / 4}" transform="translate(-6 -5)"/>`

const tooth = (i: number): string =>
  `<rect x="-6" y="-122" width="${8 + i}" height="34" fill="#3a3f43" transform="rotate(${i * 30})"/>`
const gauge = (x: number, y: number): string =>
  `<g transform="translate(${x} ${y}) rotate(12)"><circle r="120" fill="#c9ccce" stroke="#6e7275" ` +
  `stroke-width="5"/><circle r="46" ` +
  `fill="#3a3f43"/>${Array.from({ length: 12 }, (_, i) => tooth(i)).join('')}</g>`

export const DEMO_PICTURES: readonly DemoPicture[] = [
  {
    job: 'demo-sorrel-bank',
    of: 'main/7',
    caption: '14 AWG behind a 20 A handle',
    shows: 'gauge, conductor and breaker rating together',
    svg: picture(
      handle(150, 300, 20) +
        wire('M560 376 C700 380 720 560 900 600 L1180 640', '#efe9dc', 30) +
        `<path d="M560 376 h60" stroke="#b87333" stroke-width="20"/>` +
        gauge(840, 470),
    ),
    marks: [
      { kind: 'circle', x: 0.7, y: 0.53, r: 0.13 },
      { kind: 'text', x: 0.6, y: 0.9, text: '14 AWG' },
    ],
  },
  {
    job: 'demo-sorrel-bank',
    of: 'main/14',
    caption: 'Browned insulation at the terminal',
    shows: 'damage close up',
    svg: picture(
      handle(130, 330, 15) +
        wire('M540 405 C640 400 760 430 1180 350', '#8a6a3f', 36) +
        '<path d="M540 405 C600 400 640 402 690 410" stroke="#2b1c10" stroke-width="40" fill="none" opacity=".75"/>',
      '#4a4640',
    ),
    marks: [{ kind: 'arrow', x: 0.72, y: 0.75, x2: 0.53, y2: 0.49 }],
  },
  {
    job: 'demo-sorrel-bank',
    of: 'main-neutral',
    caption: 'Two neutrals under screw 5',
    shows: 'damage close up',
    svg: picture(
      '<rect x="180" y="390" width="840" height="120" rx="10" fill="#b7b2a4" stroke="#7b7669" stroke-width="5"/>' +
        [250, 400, 550, 700, 850]
          .map(
            (x, i) =>
              `<circle cx="${x}" cy="450" r="40" fill="#8d887b" stroke="#565146" ` +
              `stroke-width="6"/><path d="M${x - 22} 450 h44" stroke="#3c382f" stroke-width="9"/>` +
              wire(`M${x} 500 V880`, '#f3efe6', 30) +
              (i === 2
                ? wire(`M${x + 26} 500 C${x + 34} 640 ${x + 110} 700 ${x + 110} 880`, '#f3efe6', 30)
                : ''),
          )
          .join(''),
    ),
    marks: [{ kind: 'circle', x: 0.46, y: 0.5, r: 0.07 }],
  },
  {
    job: 'demo-sorrel-bank',
    of: 'well-panel',
    caption: 'Hole for the bonding screw is empty',
    shows: 'the whole',
    svg: picture(
      '<rect x="260" y="90" width="680" height="740" rx="14" fill="#9aa19c" stroke="#666d69" ' +
        'stroke-width="8"/><rect x="330" y="160" width="540" height="600" fill="#596064"/><rect ' +
        'x="360" y="220" width="60" height="420" fill="#b7b2a4"/><circle cx="390" cy="600" ' +
        'r="16" fill="#17191b"/><rect x="520" y="260" width="230" height="90" rx="8" ' +
        'fill="#1f2327"/><rect x="520" y="370" width="230" height="90" rx="8" fill="#1f2327"/>',
      '#6b5a48',
    ),
    marks: [
      { kind: 'arrow', x: 0.12, y: 0.78, x2: 0.31, y2: 0.67 },
      { kind: 'text', x: 0.04, y: 0.86, text: 'no screw' },
    ],
  },
  {
    job: 'demo-sorrel-bank',
    of: 'green-panel',
    caption: 'Rust on the bus',
    shows: 'damage close up',
    svg: picture(
      '<rect x="500" y="60" width="70" height="780" fill="#a5703c"/>' +
        '<rect x="640" y="60" width="70" height="780" fill="#a5703c"/>' +
        Array.from(
          { length: 26 },
          (_, i) =>
            `<circle cx="${490 + ((i * 73) % 240)}" cy="${90 + ((i * 131) % 720)}" ` +
            `r="${8 + ((i * 7) % 24)}" fill="${i % 2 ? '#6d3b1a' : '#8c4a1f'}" opacity=".8"/>`,
        ).join(''),
      '#55504a',
    ),
    marks: [],
  },
  {
    job: 'demo-bakehouse',
    of: 'oven',
    caption: 'Third bar tied to its neighbor with a bent strap',
    shows: 'damage close up',
    svg: picture(
      [420, 600, 780]
        .map(
          (x, i) =>
            `<rect x="${x - 30}" y="80" width="60" height="760" fill="${['#2b2f33', '#93302a', '#2c5f9e'][i]}"/>`,
        )
        .join('') +
        '<path d="M600 180 C640 130 740 130 780 180" fill="none" stroke="#b98d4a" ' +
        'stroke-width="46"/><circle cx="600" cy="190" r="26" fill="#8d887b"/><circle cx="780" ' +
        'cy="190" r="26" fill="#8d887b"/>',
    ),
    marks: [{ kind: 'circle', x: 0.575, y: 0.18, r: 0.13 }],
  },
]
