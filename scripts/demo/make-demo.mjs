// Makes the demo data of Keld Sound Ferries, an invented company. Run: node scripts/demo/make-demo.mjs
// The same seed gives the same files, byte for byte.
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const folder = fileURLToPath(new URL('../../demo/', import.meta.url));

/** mulberry32: a small generator with a 32-bit state. */
function randomFrom(seed) {
  let a = seed >>> 0;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
const random = randomFrom(20260630);
const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
const weighted = (pairs) => {
  let at = random() * pairs.reduce((sum, [, w]) => sum + w, 0);
  for (const [item, w] of pairs) if ((at -= w) < 0) return item;
  return pairs[0][0];
};
const cell = (text) =>
  /[",\n]/.test(String(text)) ? `"${String(text).replaceAll('"', '""')}"` : String(text);
const lines = (rows, delimiter = ',') =>
  rows.map((row) => row.map(cell).join(delimiter)).join('\n') + '\n';
const pad = (n) => String(n).padStart(2, '0');
const iso = (day) => new Date(day * 86400000).toISOString().slice(0, 10);
const dayOf = (y, m, d) => Date.UTC(y, m - 1, d) / 86400000;

const vessels = [
  ['Arctic Tern', 2011, 450, 96, 'Skerry Bank', 14.5],
  ['Stormcock', 2004, 380, 84, 'Skerry Bank', 13],
  ['Lady Maren', 1998, 260, 44, 'Holm and Inner Isles', 12],
  ['Fulmar', 2016, 320, 60, 'Holm and Inner Isles', 15],
  ['Keld Rover', 2008, 210, 38, 'Holm and Inner Isles', 12.5],
  ['Nessmaid', 2001, 180, 30, 'Nessness', 11.5],
  ['Little Auk', 2019, 150, 22, 'Nessness', 13],
  ['Ironholm', 1995, 40, 70, 'Outer Freight', 11],
  ['Gannet', 2013, 300, 64, 'Skerry Bank', 15.5],
];
const capacity = new Map(vessels.map(([name, , people, cars]) => [name, { people, cars }]));
const routes = [
  {
    name: 'Skerry Bank',
    ends: ['Keldhaven', 'Skerry Bank'],
    times: ['08:10', '10:55', '13:40', '16:25', '17:55'],
    fill: 0.58,
    fare: 6.9,
    car: 21,
    vessels: ['Arctic Tern', 'Stormcock', 'Gannet'],
    growth: 0.05,
  },
  {
    name: 'Holm and Inner Isles',
    ends: ['Keldhaven', 'Holm'],
    times: ['07:30', '09:45', '12:15', '15:00', '18:20'],
    fill: 0.52,
    fare: 4.4,
    car: 14.5,
    vessels: ['Lady Maren', 'Fulmar', 'Keld Rover'],
    growth: 0.02,
  },
  {
    name: 'Nessness',
    ends: ['Keldhaven', 'Nessness Pier 2'],
    times: ['07:30', '10:15', '16:45'],
    fill: 0.44,
    fare: 5.2,
    car: 16,
    vessels: ['Nessmaid', 'Little Auk'],
    growth: -0.02,
  },
  {
    name: 'Outer Freight',
    ends: ['Keldhaven', 'Holm Pier 10'],
    times: ['05:40'],
    fill: 0.3,
    fare: 3.5,
    car: 48,
    vessels: ['Ironholm'],
    growth: 0.07,
  },
];
const first = dayOf(2023, 1, 1);
const last = dayOf(2026, 6, 30);
const strikes = new Set([...span(dayOf(2024, 3, 12), 3), ...span(dayOf(2025, 9, 2), 4)]);
const outOfService = { vessel: 'Stormcock', from: dayOf(2024, 10, 7), to: dayOf(2025, 2, 16) };

function* span(from, days) {
  for (let d = 0; d < days; d++) yield from + d;
}

const sailings = [];
for (let day = first; day <= last; day++) {
  const date = new Date(day * 86400000);
  const month = date.getUTCMonth();
  const weekend = [0, 6].includes(date.getUTCDay());
  const season = 1 + 0.42 * Math.cos(((month - 6.5) / 12) * 2 * Math.PI);
  const years = (day - first) / 365.25;
  const winter = month <= 1 || month >= 10;
  const weather = weighted(
    winter
      ? [
          ['calm', 3],
          ['fresh', 5],
          ['rain', 4],
          ['fog', 1],
          ['gale', 1.6],
        ]
      : [
          ['calm', 8],
          ['fresh', 4],
          ['rain', 3],
          ['fog', 1.4],
          ['gale', 0.25],
        ],
  );
  for (const route of routes) {
    const times = route.times.filter((_, i) => !(month === 0 && route.times.length > 3 && i === 3));
    for (const time of times) {
      const vessel = sailingVessel(route, day);
      const out = sailings.length % 2;
      sailings.push(sail({ route, time, vessel, day, weather, weekend, season, years, out }));
    }
  }
}

function sailingVessel(route, day) {
  const fit = route.vessels.filter(
    (v) => !(v === outOfService.vessel && day >= outOfService.from && day <= outOfService.to),
  );
  return fit[Math.floor(random() ** 1.4 * fit.length)];
}

function sail({ route, time, vessel, day, weather, weekend, season, years, out }) {
  const { people, cars } = capacity.get(vessel);
  const cancelled = strikes.has(day) || random() < (weather === 'gale' ? 0.32 : 0.004);
  const demand = route.fill * season * (weekend ? 1.22 : 1) * (1 + route.growth) ** years;
  const boarded = cancelled
    ? 0
    : clamp(Math.round(people * demand * (1 + 0.2 * normal())), 0, people);
  const vehicles = cancelled
    ? 0
    : clamp(Math.round(cars * demand * (1 + 0.24 * normal())), 0, cars);
  const price = 1.03 ** years;
  const fares =
    Math.round((boarded * route.fare + vehicles * route.car) * price * (1 + 0.05 * normal()) * 4) /
    4;
  const base = { calm: 2.2, fresh: 3.2, rain: 3.8, fog: 8.5, gale: 13 }[weather];
  const delay = cancelled
    ? ''
    : Math.max(0, Math.round(base * -Math.log(1 - random()) - 1.2 + (demand > 0.9 ? 3 : 0)));
  const cause =
    !cancelled && delay >= 5
      ? weighted([
          ['loading', 4],
          ['tide', 2],
          ['weather', weather === 'gale' || weather === 'fog' ? 7 : 0.5],
          ['engine', vessel === 'Lady Maren' ? 2 : 0.6],
          ['', 3],
        ])
      : cancelled
        ? strikes.has(day)
          ? 'strike'
          : 'weather'
        : '';
  return [
    iso(day),
    time,
    route.name,
    vessel,
    out ? 'outward' : 'inward',
    weather,
    boarded,
    vehicles,
    fares.toFixed(2),
    delay,
    cause,
    cancelled ? 'yes' : 'no',
  ];
}

function clamp(n, low, high) {
  return Math.min(high, Math.max(low, n));
}

// The flaws of real files.
const somewhere = (n) => Array.from({ length: n }, () => Math.floor(random() * sailings.length));
for (const i of somewhere(120)) sailings[i][9] = '';
for (const i of somewhere(60)) sailings[i][5] = 'n/a';
for (const i of somewhere(23)) if (sailings[i][9] !== '') sailings[i][9] = `${sailings[i][9]} min`;
for (const i of somewhere(40))
  if (Number(sailings[i][8]) >= 1000)
    sailings[i][8] = Number(sailings[i][8]).toLocaleString('en-GB', { minimumFractionDigits: 2 });
for (const i of somewhere(9))
  sailings[i][2] = random() < 0.5 ? `${sailings[i][2]} ` : ` ${sailings[i][2]}`;
for (const i of somewhere(35)) sailings[i][6] = '';
for (const i of somewhere(12)) sailings[i][7] = 'n/a';
sailings[11204][8] = '1341175.00';
sailings.splice(9001, 0, [...sailings[8994]]);

const sailingHead = [
  'Sailed on',
  'Time',
  'Route',
  'Vessel',
  'Direction',
  'Weather',
  'Boarded (people)',
  'Vehicles',
  'Fares taken (£)',
  'Delay (min)',
  'Cause',
  'Cancelled',
];
mkdirSync(folder, { recursive: true });
const save = (name, text) => writeFileSync(`${folder}${name}`, text);
save('sailings.csv', lines([sailingHead, ...sailings]));
save(
  'vessels.csv',
  lines([['Vessel', 'Built', 'Passengers', 'Car spaces', 'Home route', 'Speed (kn)'], ...vessels]),
);

const kiosks = [
  'Keldhaven A',
  'Keldhaven B',
  'Keldhaven C',
  'Skerry Bank 1',
  'Skerry Bank 2',
  'Holm Pier',
  'Holm Village',
  'Inner Isles',
  'Nessness',
  'Bus station',
  'Airport desk',
  'Harbour office',
];
const size = kiosks.map((_, i) => 240 / (1 + i * 0.32));
const kioskRows = [];
for (let day = dayOf(2025, 1, 1); day <= dayOf(2025, 12, 31); day++) {
  const date = new Date(day * 86400000);
  const season = 1 + 0.4 * Math.cos(((date.getUTCMonth() - 6.5) / 12) * 2 * Math.PI);
  kioskRows.push([
    iso(day),
    ...kiosks.map((_, i) => {
      if (i === 10 && date.getUTCMonth() < 3) return '';
      if (i === 11 && [0, 6].includes(date.getUTCDay())) return '';
      if (random() < 0.012) return '-';
      return Math.max(0, Math.round(size[i] * season * (1 + 0.15 * normal())));
    }),
  ]);
}
save('kiosks.csv', lines([['Day', ...kiosks], ...kioskRows]));

save(
  'delay-bands.csv',
  lines([
    ['Band', 'From (min)', 'To (min)'],
    ['on time', 0, 5],
    ['slight', 5, 10],
    ['late', 10, 20],
    ['very late', 20, 60],
    ['lost', 60, ''],
  ]),
);

const sections = {
  Income: ['Passenger fares', 'Vehicle fares', 'Freight', 'Café and shop'],
  Costs: ['Fuel', 'Crew', 'Harbour dues', 'Repairs', 'Offices'],
};
const quarters = ['Q1 2025', 'Q2 2025', 'Q3 2025', 'Q4 2025'];
const statement = [['Section', 'Line', ...quarters]];
for (const [section, items] of Object.entries(sections)) {
  const sums = quarters.map(() => 0);
  for (const item of items) {
    const row = quarters.map(
      (_, q) =>
        Math.round(((section === 'Costs' ? 60 : 90) + random() * 160) * [0.7, 1.1, 1.5, 0.8][q]) *
          1000 +
        Math.round(random() * 999),
    );
    row.forEach((v, q) => (sums[q] += v));
    statement.push([section, item, ...row.map((v) => v.toLocaleString('en-GB'))]);
  }
  statement.push([
    section,
    `Total ${section.toLowerCase()}`,
    ...sums.map((v) => v.toLocaleString('en-GB')),
  ]);
}
save('statement.csv', lines(statement));

const german = (n) =>
  n
    .toFixed(2)
    .replace('.', ',')
    .replace(/\B(?=(\d{3})+,)/g, '.');
const monthly = [['Month end', 'Route', 'Fares taken (£)', 'Sailings']];
const byMonth = new Map();
for (const s of sailings) {
  const key = `${s[0].slice(0, 7)}|${s[2].trim()}`;
  const entry = byMonth.get(key) ?? { fares: 0, n: 0 };
  const fares = Number(s[8].replaceAll(',', ''));
  if (fares < 100000) entry.fares += fares;
  entry.n++;
  byMonth.set(key, entry);
}
for (const [key, { fares, n }] of [...byMonth].sort()) {
  const [month, route] = key.split('|');
  const [y, m] = month.split('-').map(Number);
  monthly.push([
    `${pad(new Date(Date.UTC(y, m, 0)).getUTCDate())}.${pad(m)}.${y}`,
    route,
    german(fares),
    n,
  ]);
}
save('monthly-fares.csv', lines(monthly, ';'));
