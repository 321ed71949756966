// bench/oracle.ts
import highsLoader from "highs";

// src/dates/index.ts
var MS_PER_DAY = 864e5;
function dayNumber(day) {
  return dayOfYear(day) - 1 + daysBeforeYear(yearOf(day)) - DAYS_BEFORE_1970;
}
var DAYS_BEFORE_MONTH = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334, 365];
var isLeap = (year) => year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
function daysBeforeYear(year) {
  const last = year - 1;
  return 365 * year + Math.floor(last / 4) - Math.floor(last / 100) + Math.floor(last / 400);
}
var DAYS_BEFORE_1970 = daysBeforeYear(1970);
function fromDayNumber(n) {
  const isHeld = Number.isInteger(n) && n >= 0 && n < DAYS_HELD;
  return isHeld ? daysHeld[n] ??= utcDate(n * MS_PER_DAY) : utcDate(n * MS_PER_DAY);
}
var DAYS_HELD = 5e4;
var daysHeld = [];
function addDays(day, days) {
  return fromDayNumber(dayNumber(day) + days);
}
function yearOf(day) {
  return Number(day.slice(0, 4));
}
function dayOfYear(day) {
  const found = dayOfYearIn(day);
  if (found === void 0) throw new RangeError(`Not a calendar date: ${day}`);
  return found;
}
function dayOfYearIn(text) {
  if (text.length !== 10 || text[4] !== "-" || text[7] !== "-") return void 0;
  const year = digits(text, 0, 4);
  const month = digits(text, 5, 7);
  const day = digits(text, 8, 10);
  if (year === void 0 || month === void 0 || day === void 0 || month < 1 || month > 12)
    return void 0;
  const isLeapYear = isLeap(year);
  const before = DAYS_BEFORE_MONTH[month - 1];
  const length = DAYS_BEFORE_MONTH[month] - before + (month === 2 && isLeapYear ? 1 : 0);
  return day < 1 || day > length ? void 0 : before + day + (month > 2 && isLeapYear ? 1 : 0);
}
function digits(text, from, to) {
  let n = 0;
  for (let i = from; i < to; i++) {
    const digit = text.charCodeAt(i) - ZERO;
    if (digit < 0 || digit > 9) return void 0;
    n = 10 * n + digit;
  }
  return n;
}
var ZERO = "0".charCodeAt(0);
function weekdayOf(day) {
  return ((dayNumber(day) + 4) % 7 + 7) % 7;
}
var utcDate = (instantMs) => new Date(instantMs).toISOString().slice(0, 10);

// src/words/index.ts
var months = [
  "January",
  "February",
  "March",
  "April",
  "May",
  "June",
  "July",
  "August",
  "September",
  "October",
  "November",
  "December"
];
function dayMonth(day) {
  dayNumber(day);
  return `${Number(day.slice(8))} ${months[Number(day.slice(5, 7)) - 1]}`;
}

// src/random/index.ts
function seededRandom(seed) {
  let state = seed >>> 0;
  return () => {
    state = state + 1831565813 >>> 0;
    let t = state;
    t = Math.imul(t ^ t >>> 15, t | 1);
    t ^= t + Math.imul(t ^ t >>> 7, t | 61);
    return ((t ^ t >>> 14) >>> 0) / 4294967296;
  };
}

// src/care/rule.ts
var skills = ["pruning", "machine", "spraying", "arborist"];

// src/schedule/problem.ts
var scheduleCosts = {
  /** Each garden visited on a day. */
  visit: 60,
  /** A part on another day than in the plan before. */
  moved: 45,
  /** A day that surely does not suit. */
  badWeather: 260,
  /** A part of a job away from the best weeks costs its share of the operation's rate a day. */
  rate: {
    divide: 12,
    move: 16,
    plant: 14,
    prune: 9,
    "cut back": 8,
    deadhead: 8,
    swap: 14,
    lift: 24,
    protect: 22,
    "bring in": 40,
    stake: 12,
    "tie in": 5,
    feed: 6,
    mulch: 4,
    soil: 4,
    weed: 5,
    "refresh mix": 6,
    "pot on": 8,
    upkeep: 2,
    prepare: 5,
    remove: 4,
    aftercare: 24
  },
  /** Not done in its window at all. */
  unplaced: {
    divide: 2200,
    move: 4e3,
    plant: 3200,
    prune: 2600,
    "cut back": 2e3,
    deadhead: 700,
    swap: 3e3,
    lift: 5e3,
    protect: 4200,
    "bring in": 7e3,
    stake: 1500,
    "tie in": 1e3,
    feed: 900,
    mulch: 1200,
    soil: 900,
    weed: 900,
    "refresh mix": 1300,
    "pot on": 1600,
    upkeep: 600,
    prepare: 4e3,
    remove: 1200,
    aftercare: 3e3
  }
};
var MOST_PART_MINUTES = 180;
var MOST_DAYS_BETWEEN_PARTS = 10;

// src/schedule/room.ts
var SKILLS = skills.length;
var SKILL_SETS = 1 << SKILLS;
var skillBits = (known) => known.reduce((bits, k) => bits | 1 << skills.indexOf(k), 0);
function shiftRoom({ people }) {
  const ordered = [...people].sort((a, b) => b.minutes - a.minutes);
  const known = ordered.map((p) => skillBits(p.skills));
  const found = /* @__PURE__ */ new Map();
  const left = (awayMin) => {
    const before = found.get(awayMin);
    if (before) return before;
    const minutes = ordered.map((p) => Math.max(0, p.minutes - awayMin));
    const sum = (of) => minutes.reduce((s, m, i) => s + (of(i) ? m : 0), 0);
    const now = {
      all: sum(() => true),
      ofSkills: Int32Array.from({ length: SKILL_SETS }, (_, set) => sum((i) => (known[i] & set) !== 0)),
      beyond: Int32Array.from({ length: minutes.length + 1 }, (_, some) => sum((i) => i >= some)),
      people: minutes.filter((m) => m > 0).length
    };
    found.set(awayMin, now);
    return now;
  };
  return { whole: left(0).all, left };
}
var minutesBeyond = (minutes, hands, people) => minutes * Math.max(0, 1 - people / hands);
function roomFor({ all, ofSkills, beyond, people }, skill, hands) {
  if (people < hands) return 0;
  let most = skill < 0 ? all : ofSkills[1 << skill];
  for (let some = 1; some < hands; some++) most = Math.min(most, beyond[some] / (1 - some / hands));
  return Math.floor(most + 1e-9);
}

// src/schedule/prepare.ts
var PIN_PENALTY = 1e6;
var identityOf = (job) => job.identity ?? job.id;
function prepare(problem) {
  const shifts = [...problem.shifts].sort(
    (a, b) => a.day === b.day ? a.id < b.id ? -1 : 1 : a.day < b.day ? -1 : 1
  );
  const sorted = {
    ...problem,
    shifts,
    jobs: [...problem.jobs].sort(
      (a, b) => identityOf(a) < identityOf(b) ? -1 : identityOf(a) > identityOf(b) ? 1 : 0
    )
  };
  const days = Int32Array.from(shifts, (s) => dayNumber(s.day));
  const gardenIndex = new Map(problem.gardens.map((g, i) => [g.id, i]));
  const rooms = shifts.map(shiftRoom);
  const partsOf = /* @__PURE__ */ new Map();
  const parts = [];
  for (const job of sorted.jobs) {
    if (job.doneOn) continue;
    const garden = gardenIndex.get(job.gardenId);
    if (garden === void 0) throw new RangeError(`Job ${job.id}: there is no garden ${job.gardenId}`);
    const open = openShifts(job, garden, sorted, rooms);
    const roomiest = open.reduce((most2, o) => Math.max(most2, o.roomMin), 0);
    const most = Math.max(LEAST_PART_MINUTES, Math.min(MOST_PART_MINUTES, roomiest));
    const of = Math.max(1, Math.ceil(job.minutes / most));
    const own = [];
    for (let index = 0; index < of; index++) {
      own.push(parts.length);
      const minutes = Math.floor(job.minutes / of) + (index < job.minutes % of ? 1 : 0);
      parts.push(partOf({ job, index, of, minutes, garden }, open, sorted, days));
    }
    partsOf.set(job.id, own);
  }
  link(sorted, parts, partsOf);
  const { components, componentOf } = group(parts);
  return {
    problem: sorted,
    parts,
    partsOf,
    days,
    rooms,
    mostHands: parts.reduce((most, p) => Math.max(most, p.hands), 1),
    travel: Int32Array.from(problem.gardens, (g) => g.travelMinutes),
    gardens: problem.gardens.length,
    components,
    componentOf
  };
}
var LEAST_PART_MINUTES = 15;
function openShifts(job, garden, { shifts, gardens }, rooms) {
  const { pinnedTo } = job;
  const { earliest, latest } = job.window;
  return shifts.flatMap((shift, index) => {
    const isOpen = pinnedTo ? shift.day >= pinnedTo : shift.day >= earliest && shift.day <= latest;
    if (!isOpen || shift.gardenIds && !shift.gardenIds.includes(job.gardenId)) return [];
    const left = rooms[index].left(gardens[garden].travelMinutes);
    const roomMin = roomFor(left, skillOf(job), job.hands ?? 1);
    return roomMin > 0 ? [{ index, shift, roomMin }] : [];
  });
}
var skillOf = (job) => job.skill ? skills.indexOf(job.skill) : -1;
function partOf({ job, index, of, minutes, garden }, open, { gardens, unsuitable }, days) {
  const { bestFrom, bestTo } = job.window;
  const [bf, bt] = [dayNumber(bestFrom), dayNumber(bestTo)];
  const rate = scheduleCosts.rate[job.operation] / of;
  const chances = (gardens[garden].unsuitable ?? unsuitable)[job.weather];
  const kept = job.keptOn?.[index];
  const [earliest, latest] = daysOfPart(job, index);
  const found = [];
  for (const { index: i, shift } of open) {
    const day = days[i];
    if (day < earliest || day > latest) continue;
    const outside = Math.max(0, bf - day, day - bt);
    const weather = scheduleCosts.badWeather * (chances?.[shift.day] ?? 0) * (minutes / job.minutes);
    const moved = kept !== void 0 && kept !== shift.day ? scheduleCosts.moved : 0;
    found.push([i, Math.round(rate * outside + weather) + moved]);
  }
  const whole = job.pinnedTo ? PIN_PENALTY : Math.round(scheduleCosts.unplaced[job.operation] * (job.worth ?? 1));
  return {
    job,
    index,
    of,
    minutes,
    garden,
    skill: skillOf(job),
    hands: job.hands ?? 1,
    shifts: Int32Array.from(found, ([s]) => s),
    costs: Int32Array.from(found, ([, c]) => c),
    penalty: index === 0 ? whole : 0,
    before: [],
    after: [],
    earliest,
    latest
  };
}
function daysOfPart({ window, pinnedTo }, index) {
  const latest = dayNumber(window.latest);
  if (!pinnedTo) return [dayNumber(window.earliest), latest];
  const pin = dayNumber(pinnedTo);
  return [pin, index === 0 ? pin : Math.max(latest, pin + index * MOST_DAYS_BETWEEN_PARTS)];
}
function link(problem, parts, partsOf) {
  const jobs = new Map(problem.jobs.map((j) => [j.id, j]));
  const arc = (from, to, least, most) => {
    parts[to].before.push({ part: from, least, most });
    parts[from].after.push({ part: to, least, most });
  };
  for (const [id, own] of partsOf) {
    own.slice(1).forEach((part, i) => arc(own[i], part, 0, MOST_DAYS_BETWEEN_PARTS));
    for (const first of jobs.get(id).after) {
      const job = jobs.get(first.id);
      const most = first.mostDays ?? Infinity;
      if (job?.doneOn) {
        const done = dayNumber(job.doneOn);
        const part = parts[own[0]];
        part.earliest = Math.max(part.earliest, done + first.leastDays);
        part.latest = Math.min(part.latest, done + most);
      } else {
        const before = partsOf.get(first.id);
        if (before) arc(before.at(-1), own[0], first.leastDays, most);
      }
    }
  }
}
function group(parts) {
  const order = [];
  const waiting = parts.map((p) => p.before.length);
  const ready = parts.flatMap((p, i) => p.before.length === 0 ? [i] : []);
  for (let i = ready.shift(); i !== void 0; i = ready.shift()) {
    order.push(i);
    for (const { part } of parts[i].after) if (--waiting[part] === 0) ready.push(part);
  }
  if (order.length < parts.length) {
    const stuck = parts.filter((_, i) => waiting[i] > 0).map((p) => p.job.id);
    throw new RangeError(`Jobs wait for each other: ${[...new Set(stuck)].join(", ")}`);
  }
  const componentOf = new Int32Array(parts.length).fill(-1);
  const components = [];
  for (const i of order) {
    if (componentOf[i] >= 0) continue;
    const reached = /* @__PURE__ */ new Set([i]);
    const stack = [i];
    for (let at = stack.pop(); at !== void 0; at = stack.pop())
      for (const { part } of [...parts[at].before, ...parts[at].after])
        if (!reached.has(part)) {
          reached.add(part);
          stack.push(part);
        }
    const own = order.filter((p) => reached.has(p));
    for (const p of own) componentOf[p] = components.length;
    components.push(own);
  }
  return { components, componentOf };
}

// src/search/ruinAndRecreate.ts
var STEP = 500;
function* ruinAndRecreate(solution, { hot, cold, cycles }, iterations, random) {
  let best = { kept: solution.keep(), cost: solution.cost() };
  const cycle = Math.ceil(iterations / cycles);
  const cooling = Math.pow(cold / hot, 1 / Math.max(1, cycle));
  let temperature = hot;
  for (let round = 0; round < iterations; round++) {
    if (round % STEP === 0) yield { done: round, of: iterations, cost: best.cost };
    if (round % cycle === 0) temperature = hot;
    temperature *= cooling;
    const pieces = solution.choose(random);
    const before = solution.cost();
    solution.ruin(pieces);
    solution.recreate(pieces, random);
    const worse = solution.cost() - before;
    if (worse > 0 && random() >= Math.exp(-worse / temperature)) solution.undo(pieces);
    else if (solution.cost() < best.cost) best = { kept: solution.keep(), cost: solution.cost() };
    solution.settled?.(pieces);
  }
  return best;
}

// src/schedule/insert.ts
var NEVER = 1e9;
var isThe = (visit, garden, shift) => visit !== void 0 && visit.shift === shift && visit.garden === garden;
var MOST_TRIED = 6;
var OUT = -1;
var OPEN = -2;
function inserter(prepared, state, skips) {
  const { parts, components, days } = prepared;
  const joinsOf = components.map((own) => own.filter((p) => parts[p].before.length > 1));
  const siblings = parts.map((part) => prepared.partsOf.get(part.job.id));
  const alone = parts.map((p) => new Float64Array(p.shifts.length));
  const least = parts.map((p) => new Float64Array(p.shifts.length));
  const without = new Float64Array(parts.length);
  const from = new Float64Array(parts.length).fill(-Infinity);
  const to = new Float64Array(parts.length).fill(Infinity);
  const isNeeded = new Uint8Array(parts.length);
  const fixed = new Int32Array(parts.length).fill(OPEN);
  let turn = 0;
  const queue = new Int32Array(Math.max(1, ...parts.map((p) => p.shifts.length)));
  const self = { insert, closed: void 0, opened: void 0, visitCost: scheduleCosts.visit };
  return self;
  function insert(component) {
    const own = components[component];
    if (own.length === 1) {
      const p = own[0];
      const i = cheapest(p, -Infinity, Infinity);
      if (i >= 0) state.put(p, parts[p].shifts[i], parts[p].costs[i]);
      return;
    }
    for (const p of own) {
      const part = parts[p];
      for (let i = 0; i < part.shifts.length; i++) alone[p][i] = ownCost(part, p, i);
    }
    const joins = joinsOf[component];
    if (joins.length > 0) fixJoins(own, joins);
    else work(own);
    place(own);
    takeHalves(own);
  }
  function ownCost(part, p, i) {
    const shift = part.shifts[i];
    const day = days[shift];
    if (day < part.earliest || day > part.latest || !state.fits(p, shift) || skips()) return NEVER;
    if (isThe(self.closed, part.garden, shift)) return NEVER;
    const free = state.isVisited(part.garden, shift) || isThe(self.opened, part.garden, shift);
    return part.costs[i] + (free ? 0 : self.visitCost);
  }
  function cheapest(p, from2, to2) {
    const part = parts[p];
    let best = -1;
    let bestCost = costOfLeaving(p, part.penalty);
    for (let i = firstFrom(part.shifts, from2); i < part.shifts.length; i++) {
      if (days[part.shifts[i]] > to2) break;
      if (part.costs[i] >= bestCost) continue;
      const cost = ownCost(part, p, i);
      if (cost < bestCost) {
        bestCost = cost;
        best = i;
      }
    }
    return best;
  }
  function costOfLeaving(p, cost) {
    return parts[p].index > 0 || isNeeded[p] === 1 ? NEVER : cost;
  }
  function isFixed(p) {
    return fixed[p] !== OPEN;
  }
  function isFollowed(p, { part }) {
    return !isFixed(part) && (parts[part].before.length <= 1 || parts[part].before[0].part === p);
  }
  function work(own) {
    let total = 0;
    for (let k = own.length - 1; k >= 0; k--) {
      const p = own[k];
      const part = parts[p];
      let missing = part.penalty;
      for (const arc of part.after)
        if (isFollowed(p, arc)) missing += isNeeded[arc.part] === 1 ? NEVER : without[arc.part];
      without[p] = missing;
      const costs = least[p];
      costs.set(alone[p]);
      if (fixed[p] >= 0) {
        for (let i = 0; i < costs.length; i++) if (i !== fixed[p]) costs[i] = NEVER;
      }
      if (fixed[p] === OUT) costs.fill(NEVER);
      for (const arc of part.after) if (isFollowed(p, arc)) addBestAfter(p, arc);
      if (part.before.length === 0 || isFixed(p)) total += leastBetween(p, from[p], to[p]).cost;
    }
    return total;
  }
  function fixJoins(own, joins) {
    for (const j of joins) {
      let best = Infinity;
      let chosen = OUT;
      for (const i of [OUT, ...tried(j)]) {
        fixed[j] = i;
        limit(own, joins);
        const cost = work(own);
        if (cost < best) {
          best = cost;
          chosen = i;
        }
      }
      fixed[j] = chosen;
    }
    limit(own, joins);
    work(own);
  }
  function tried(p) {
    const costs = alone[p];
    let cheapest2 = -1;
    const free = [];
    for (let i = 0; i < costs.length; i++) {
      if (costs[i] >= NEVER) continue;
      free.push(i);
      if (cheapest2 < 0 || costs[i] < costs[cheapest2]) cheapest2 = i;
    }
    if (free.length <= MOST_TRIED) return free;
    const chosen = [cheapest2];
    const step = free.length / (MOST_TRIED - 1);
    turn = (turn + 0.618) % 1;
    for (let k = 0; k < MOST_TRIED - 1; k++) chosen.push(free[Math.floor((k + turn) * step)]);
    return chosen;
  }
  function limit(own, joins) {
    for (const p of own) {
      from[p] = -Infinity;
      to[p] = Infinity;
      isNeeded[p] = 0;
    }
    for (const j of joins) {
      if (fixed[j] < 0) continue;
      const day = days[parts[j].shifts[fixed[j]]];
      for (const { part, least: gap, most } of parts[j].before) {
        from[part] = Math.max(from[part], day - most);
        to[part] = Math.min(to[part], day - gap);
        isNeeded[part] = 1;
      }
    }
  }
  function place(own) {
    for (const p of own) {
      const part = parts[p];
      let first = from[p];
      let last = to[p];
      let waits = false;
      for (const { part: b, least: gap, most } of part.before) {
        const shift = state.where[b];
        if (shift < 0) waits = true;
        else {
          first = Math.max(first, days[shift] + gap);
          last = Math.min(last, days[shift] + most);
        }
      }
      if (waits) continue;
      let { index } = leastBetween(p, first, last);
      if (index >= 0 && !state.fits(p, part.shifts[index])) index = cheapest(p, first, last);
      if (index >= 0) state.put(p, part.shifts[index], part.costs[index]);
    }
    for (const p of own) {
      from[p] = -Infinity;
      to[p] = Infinity;
      isNeeded[p] = 0;
      fixed[p] = OPEN;
    }
  }
  function takeHalves(own) {
    const isPlaced = (p) => state.where[p] >= 0;
    for (let taken = true; taken; ) {
      taken = false;
      for (const p of own) {
        if (!isPlaced(p)) continue;
        if (parts[p].before.every((a) => isPlaced(a.part)) && siblings[p].every(isPlaced)) continue;
        state.take(p);
        taken = true;
      }
    }
  }
  function addBestAfter(p, arc) {
    const mine = parts[p].shifts;
    const theirs = parts[arc.part].shifts;
    const own = least[p];
    const costs = least[arc.part];
    const missing = costOfLeaving(arc.part, without[arc.part]);
    const first = from[arc.part];
    const last = to[arc.part];
    let head = 0;
    let tail = 0;
    let next = 0;
    for (let i = 0; i < mine.length; i++) {
      const day = days[mine[i]];
      const until = Math.min(last, day + arc.most);
      for (; next < theirs.length && days[theirs[next]] <= until; next++) {
        while (tail > head && costs[queue[tail - 1]] >= costs[next]) tail--;
        queue[tail++] = next;
      }
      const since = Math.max(first, day + arc.least);
      while (head < tail && days[theirs[queue[head]]] < since) head++;
      const best = head < tail ? costs[queue[head]] : missing;
      own[i] += Math.min(best, missing);
    }
  }
  function leastBetween(p, from2, to2) {
    const { shifts } = parts[p];
    let cost = costOfLeaving(p, without[p]);
    let index = -1;
    for (let i = firstFrom(shifts, from2); i < shifts.length && days[shifts[i]] <= to2; i++)
      if (least[p][i] < cost) {
        cost = least[p][i];
        index = i;
      }
    return { cost, index };
  }
  function firstFrom(shifts, day) {
    if (day === -Infinity) return 0;
    let low = 0;
    let high = shifts.length;
    while (low < high) {
      const middle = low + high >> 1;
      if (days[shifts[middle]] < day) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

// src/schedule/ruin.ts
var MOST_RUINED = 12;
var REACH_DAYS = 14;
var FIT_IN = 0.1;
var CLOSE_VISIT = 0.45;
var OPEN_VISIT = 0.6;
var OPEN_ELSEWHERE = 0.35;
function ruins(prepared, state, placing) {
  const { parts, components, componentOf, days } = prepared;
  const count = components.length;
  const gardenOf = Int32Array.from(components, (own) => parts[own[0]].garden);
  const scores = new Float64Array(count);
  const candidates = [];
  const middleOf = components.map((own) => {
    const { shifts, costs } = parts[own[0]];
    let at = 0;
    for (let i = 1; i < shifts.length; i++) if (costs[i] < costs[at]) at = i;
    return shifts.length > 0 ? days[shifts[at]] : 0;
  });
  const dayOf = Int32Array.from(middleOf);
  const noteDay = (c) => {
    const shift = state.where[components[c][0]];
    dayOf[c] = shift >= 0 ? days[shift] : middleOf[c];
  };
  components.forEach((_, c) => noteDay(c));
  return { choose: chooseRuined, noteDay };
  function chooseRuined(random) {
    const first = Math.floor(random() * count);
    const kind = random();
    if (kind < FIT_IN) {
      const left = components.findIndex((own, c) => c >= first && own.some((p) => state.where[p] < 0));
      if (left >= 0) return [left, ...inTheWay(left, random)];
    }
    if (kind < CLOSE_VISIT) return closingVisit(first, random);
    const about = dayOf[first];
    const garden = gardenOf[first];
    if (kind < OPEN_VISIT) {
      const { shifts } = parts[components[first][0]];
      if (shifts.length > 0) placing.opened = { garden, shift: shifts[Math.floor(random() * shifts.length)] };
    }
    return near(first, about, garden, 1 + Math.floor(random() * Math.min(MOST_RUINED, count)), random);
  }
  function near(first, about, garden, size, random) {
    const reach = REACH_DAYS * (1 + size / MOST_RUINED);
    candidates.length = 0;
    for (let c = 0; c < count; c++) {
      const apart = Math.abs(dayOf[c] - about);
      if (apart > reach && c !== first) continue;
      scores[c] = c === first ? -1 : apart + (gardenOf[c] === garden ? 0 : 4) + 6 * random();
      candidates.push(c);
    }
    return smallest(size);
  }
  function smallest(size) {
    const chosen = [];
    for (const c of candidates) {
      const score = scores[c];
      if (chosen.length === size && score >= scores[chosen[size - 1]]) continue;
      let at = chosen.length < size ? chosen.length : size - 1;
      while (at > 0 && scores[chosen[at - 1]] > score) {
        chosen[at] = chosen[at - 1];
        at--;
      }
      chosen[at] = c;
    }
    return chosen;
  }
  function closingVisit(c, random) {
    const placed = components[c].filter((p) => state.where[p] >= 0);
    if (placed.length === 0) return [c];
    const shift = state.where[placed[Math.floor(random() * placed.length)]];
    const garden = gardenOf[c];
    const chosen = /* @__PURE__ */ new Set([c]);
    for (let q = 0; q < parts.length && chosen.size < MOST_RUINED; q++)
      if (state.where[q] === shift && parts[q].garden === garden) chosen.add(componentOf[q]);
    if (random() < 0.75) placing.closed = { garden, shift };
    if (random() < OPEN_ELSEWHERE) {
      const { shifts } = parts[components[c][0]];
      placing.opened = { garden, shift: shifts[Math.floor(random() * shifts.length)] };
    }
    if (random() < 0.5)
      for (const other of near(c, days[shift], garden, Math.floor(random() * MOST_RUINED), random))
        chosen.add(other);
    return [...chosen];
  }
  function inTheWay(c, random) {
    const part = parts[components[c].find((p) => state.where[p] < 0)];
    if (part.shifts.length === 0) return [];
    const shift = part.shifts[Math.floor(random() * part.shifts.length)];
    const chosen = /* @__PURE__ */ new Set();
    for (let q = 0; q < parts.length && chosen.size < MOST_RUINED; q++)
      if (state.where[q] === shift && componentOf[q] !== c) chosen.add(componentOf[q]);
    return [...chosen];
  }
}

// src/schedule/state.ts
var ROUNDING = 1e-6;
function scheduleState(prepared) {
  const { parts, rooms, mostHands, travel, gardens } = prepared;
  const shifts = rooms.length;
  const where = new Int32Array(parts.length).fill(-1);
  const ownCosts = new Int32Array(parts.length);
  const minutesOf = Int32Array.from(parts, (p) => p.minutes);
  const gardenOf = Int32Array.from(parts, (p) => p.garden);
  const skillOf2 = Int32Array.from(parts, (p) => p.skill);
  const handsOf = Int32Array.from(parts, (p) => p.hands);
  const work = new Int32Array(shifts);
  const away = new Int32Array(shifts);
  const left = rooms.map((r) => r.left(0));
  const leftFurther = rooms.flatMap((r) => Array.from(travel, (minutes) => r.left(minutes)));
  const visits = new Int32Array(shifts * gardens);
  const workOfSkills = new Int32Array(shifts * SKILL_SETS);
  const skilledWork = new Int32Array(shifts);
  const workBeyond = new Float64Array(shifts * mostHands);
  const state = {
    where,
    ownCosts,
    cost: parts.reduce((sum, p) => sum + p.penalty, 0),
    isVisited: (garden, shift) => visits[shift * gardens + garden] > 0,
    used: (shift) => work[shift] + rooms[shift].whole - left[shift].all,
    shortBy(part, shift) {
      return work[shift] + minutesOf[part] - leftWith(part, shift).all;
    },
    fits(part, shift) {
      const there = leftWith(part, shift);
      if (work[shift] + minutesOf[part] > there.all) return false;
      const isFurther = there !== left[shift];
      const skill = skillOf2[part];
      if (skill >= 0 || isFurther && skilledWork[shift] > 0) {
        if (!hasSkills(part, shift, there)) return false;
      }
      return mostHands === 1 || hasHands(part, shift, there, isFurther);
    },
    put(part, shift, ownCost) {
      const { garden, penalty } = parts[part];
      const visit = shift * gardens + garden;
      if (visits[visit] === 0) {
        go(shift, travel[garden]);
        state.cost += scheduleCosts.visit;
      }
      visits[visit]++;
      addWork(part, shift, 1);
      where[part] = shift;
      ownCosts[part] = ownCost;
      state.cost += ownCost - penalty;
    },
    take(part) {
      const shift = where[part];
      if (shift < 0) return;
      const { garden, penalty } = parts[part];
      const visit = shift * gardens + garden;
      visits[visit]--;
      if (visits[visit] === 0) {
        go(shift, -travel[garden]);
        state.cost -= scheduleCosts.visit;
      }
      addWork(part, shift, -1);
      where[part] = -1;
      state.cost += penalty - ownCosts[part];
    }
  };
  return state;
  function leftWith(part, shift) {
    const visit = shift * gardens + gardenOf[part];
    return visits[visit] > 0 ? left[shift] : leftFurther[visit];
  }
  function go(shift, minutes) {
    if (minutes === 0) return;
    away[shift] += minutes;
    left[shift] = rooms[shift].left(away[shift]);
    for (let g = 0; g < gardens; g++)
      leftFurther[shift * gardens + g] = rooms[shift].left(away[shift] + travel[g]);
  }
  function hasSkills(part, shift, { ofSkills }) {
    const skill = skillOf2[part];
    const at = shift * SKILL_SETS;
    for (let set = 1; set < SKILL_SETS; set++) {
      const asked = workOfSkills[at + set] + (skill >= 0 && set & 1 << skill ? minutesOf[part] : 0);
      if (asked > 0 && asked > ofSkills[set]) return false;
    }
    return true;
  }
  function hasHands(part, shift, { beyond }, isFurther) {
    const hands = handsOf[part];
    for (let some = 1; some < mostHands; some++) {
      const already = workBeyond[shift * mostHands + some];
      const asked = already + minutesBeyond(minutesOf[part], hands, some);
      if (asked === already && !(isFurther && already > 0)) continue;
      if (asked > (beyond[some] ?? 0) + ROUNDING) return false;
    }
    return true;
  }
  function addWork(part, shift, sign) {
    const minutes = sign * minutesOf[part];
    const skill = skillOf2[part];
    work[shift] += minutes;
    if (skill >= 0) {
      skilledWork[shift] += minutes;
      for (let set = 1; set < SKILL_SETS; set++)
        if (set & 1 << skill) workOfSkills[shift * SKILL_SETS + set] += minutes;
    }
    for (let people = 1; people < handsOf[part]; people++)
      workBeyond[shift * mostHands + people] += minutesBeyond(minutes, handsOf[part], people);
  }
}

// src/schedule/search.ts
var DAYS_BETWEEN_SKIPS = 100;
var HOT = 40;
var COLD = 0.8;
var FEW = 60;
var REHEATS = 8;
function* search(prepared, { seed, iterations }) {
  const { parts, components } = prepared;
  const random = seededRandom(seed);
  const state = scheduleState(prepared);
  let untilSkip = Infinity;
  const placing = inserter(prepared, state, () => {
    if (--untilSkip > 0) return false;
    untilSkip = Math.ceil(2 * random() * DAYS_BETWEEN_SKIPS);
    return true;
  });
  const order = orders(prepared);
  for (const c of order.bySlack([...components.keys()])) placing.insert(c);
  const count = components.length;
  if (count === 0) return { where: state.where, cost: state.cost };
  untilSkip = DAYS_BETWEEN_SKIPS;
  const { choose, noteDay } = ruins(prepared, state, placing);
  const before = new Int32Array(parts.length);
  const beforeCost = new Int32Array(parts.length);
  const partsOf = (groups, each) => groups.forEach((c) => components[c].forEach(each));
  const { kept, cost } = yield* ruinAndRecreate(
    {
      cost: () => state.cost,
      choose,
      ruin: (groups) => partsOf(groups, (p) => {
        before[p] = state.where[p];
        beforeCost[p] = state.ownCosts[p];
        state.take(p);
      }),
      recreate: (groups, random2) => {
        placing.visitCost = scheduleCosts.visit * random2();
        for (const c of order.reordered(groups, random2)) placing.insert(c);
        placing.closed = void 0;
        placing.opened = void 0;
      },
      undo: (groups) => {
        partsOf(groups, state.take);
        partsOf(groups, (p) => before[p] >= 0 && state.put(p, before[p], beforeCost[p]));
      },
      settled: (groups) => groups.forEach(noteDay),
      keep: () => state.where.slice()
    },
    { hot: HOT, cold: COLD, cycles: count <= FEW ? REHEATS : 1 },
    iterations,
    random
  );
  return { where: kept, cost };
}
function orders({ parts, components }) {
  const penaltyOf = components.map((own) => own.reduce((sum, p) => sum + parts[p].penalty, 0));
  const minutesOf = components.map((own) => own.reduce((sum, p) => sum + parts[p].minutes, 0));
  const choicesOf = components.map((own) => Math.min(...own.map((p) => parts[p].shifts.length)));
  const density = (c) => penaltyOf[c] / minutesOf[c] / Math.max(1, choicesOf[c]);
  const bySlack = (groups) => [...groups].sort((a, b) => density(b) - density(a) || a - b);
  const byLength = (groups) => [...groups].sort((a, b) => minutesOf[b] - minutesOf[a] || a - b);
  function reordered(groups, random) {
    const kind = random();
    if (kind < 0.4) return bySlack(groups);
    if (kind < 0.6) return byLength(groups);
    const shuffled = [...groups];
    for (let i = shuffled.length - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [shuffled[i], shuffled[j]] = [shuffled[j], shuffled[i]];
    }
    return shuffled;
  }
  return { bySlack, reordered };
}

// src/schedule/schedule.ts
var FULL_ROUNDS = 6e4;
var DEFAULT_SEARCH = { seed: 20260914, iterations: FULL_ROUNDS };
function scheduleJobs(problem, options = DEFAULT_SEARCH) {
  const steps = scheduleSteps(problem, options);
  for (; ; ) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
function* scheduleSteps(problem, options = DEFAULT_SEARCH) {
  const prepared = prepare(problem);
  const isSmall = prepared.components.length <= FEW && options.iterations >= FULL_ROUNDS;
  const starts = isSmall ? SMALL_STARTS : 1;
  const iterations = isSmall ? Math.min(options.iterations, SMALL_ROUNDS) : options.iterations;
  let best;
  for (let k = 0; k < starts; k++) {
    const steps = search(prepared, { seed: options.seed + k, iterations });
    let step = steps.next();
    for (; !step.done; step = steps.next())
      yield {
        done: k * iterations + step.value.done,
        of: starts * iterations,
        cost: Math.min(best?.cost ?? Infinity, step.value.cost)
      };
    if (!best || step.value.cost < best.cost) best = step.value;
  }
  return asSchedule(prepared, best.where);
}
var SMALL_STARTS = 4;
var SMALL_ROUNDS = 2e4;
function stateOf(prepared, where) {
  const state = scheduleState(prepared);
  prepared.parts.forEach((part, p) => {
    const shift = where[p];
    if (shift >= 0) state.put(p, shift, part.costs[part.shifts.indexOf(shift)]);
  });
  return state;
}
function asSchedule(prepared, where) {
  const { partsOf, parts, problem, rooms } = prepared;
  const state = stateOf(prepared, where);
  const placed = [];
  const unplaced = [];
  const moved = [];
  for (const job of problem.jobs) {
    const own = partsOf.get(job.id);
    if (!own) continue;
    if (own.every((p) => where[p] >= 0)) {
      const days = own.map((p) => {
        const shift = problem.shifts[where[p]];
        return { day: shift.day, shiftId: shift.id, minutes: parts[p].minutes };
      });
      const { bestFrom, bestTo } = job.window;
      placed.push({
        id: job.id,
        parts: days,
        inBest: days.every((d) => d.day >= bestFrom && d.day <= bestTo)
      });
    } else unplaced.push(unplacedJob(prepared, state, job));
    const move = movedFrom(prepared, state, job, own);
    if (move) moved.push(move);
  }
  const visits = new Set(parts.flatMap((part, p) => where[p] < 0 ? [] : [`${where[p]} ${part.garden}`]));
  return {
    placed,
    unplaced,
    moved,
    cost: costOf(prepared, where, visits.size),
    load: problem.shifts.map((s, i) => ({
      shiftId: s.id,
      day: s.day,
      used: state.used(i),
      capacity: rooms[i].whole
    }))
  };
}
function costOf({ parts, problem }, where, visits) {
  let days = 0;
  let moved = 0;
  let unplaced = 0;
  parts.forEach((part, p) => {
    const shift = where[p];
    if (shift < 0) {
      unplaced += part.penalty;
      return;
    }
    const kept = part.job.keptOn?.[part.index];
    const move = kept !== void 0 && kept !== problem.shifts[shift].day ? scheduleCosts.moved : 0;
    moved += move;
    days += part.costs[part.shifts.indexOf(shift)] - move;
  });
  const visited = visits * scheduleCosts.visit;
  return { total: days + moved + unplaced + visited, days, visits: visited, moved, unplaced };
}
function unplacedJob(prepared, state, job) {
  const { parts, partsOf, days } = prepared;
  const own = partsOf.get(job.id);
  const answer = (reason, shortMinutes = 0) => ({
    id: job.id,
    reason,
    shortMinutes,
    cost: parts[own[0]].penalty,
    nextChance: job.nextChance ?? null
  });
  const [first] = own;
  if (parts[first].before.some((a) => state.where[a.part] < 0)) return answer("waits-for-unplaced");
  if (parts[first].shifts.length === 0)
    return answer(parts[first].skill >= 0 && hasOpenDay(prepared, job) ? "no-skill" : "no-working-day");
  const against = (() => {
    for (const p of own) {
      const [from, to] = between(prepared, state, parts[p]);
      const open = [...parts[p].shifts].filter((s) => days[s] >= from && days[s] <= to);
      if (open.length === 0)
        return answer(p === first ? "order-leaves-no-day" : "days-full", p === first ? 0 : parts[p].minutes);
      const shift = open.find((s) => state.fits(p, s));
      if (shift === void 0) {
        const byTime = Math.min(...open.map((s) => state.shortBy(p, s)));
        return byTime > 0 ? answer("days-full", byTime) : answer("no-skill");
      }
      state.put(p, shift, 0);
    }
    return void 0;
  })();
  for (const p of own) state.take(p);
  return against ?? answer("costs-more");
}
var hasOpenDay = ({ problem }, { window }) => problem.shifts.some((s) => s.day >= window.earliest && s.day <= window.latest);
function between(prepared, state, part) {
  const { days } = prepared;
  let from = part.earliest;
  let to = part.latest;
  for (const { part: p, least, most } of part.before) {
    const shift = state.where[p];
    if (shift < 0) continue;
    from = Math.max(from, days[shift] + least);
    to = Math.min(to, days[shift] + most);
  }
  for (const { part: p, least, most } of part.after) {
    const shift = state.where[p];
    if (shift < 0) continue;
    to = Math.min(to, days[shift] - least);
    from = Math.max(from, days[shift] - most);
  }
  return [from, to];
}
function movedFrom(prepared, state, job, own) {
  const { parts, problem, days } = prepared;
  for (const p of own) {
    let movedWhy2 = function() {
      if (!job.pinnedTo && (kept < job.window.earliest || kept > job.window.latest))
        return `${dayMonth(kept)} no longer lies in its window.`;
      if (before === void 0) return `${dayMonth(kept)} is no longer a working day for it.`;
      const [from, until] = between(prepared, state, parts[p]);
      const day = dayNumber(kept);
      if (day < from || day > until) return "What comes before or after it has moved.";
      if (shift >= 0) state.take(p);
      const short = state.shortBy(p, before);
      const fits = state.fits(p, before);
      if (shift >= 0) state.put(p, shift, parts[p].costs[parts[p].shifts.indexOf(shift)]);
      if (!fits)
        return short > 0 ? `${dayMonth(kept)} is full without it: ${short} minutes short.` : `Those with the skill for it are taken on ${dayMonth(kept)}.`;
      return shift >= 0 && days[shift] !== day ? "The plan as a whole is better so: fewer visits, better weeks or better weather." : "Leaving it out costs less than what it would displace.";
    };
    var movedWhy = movedWhy2;
    const kept = job.keptOn?.[parts[p].index];
    const shift = state.where[p];
    const to = shift < 0 ? null : problem.shifts[shift].day;
    if (kept === void 0 || kept === to) continue;
    const before = [...parts[p].shifts].find((s) => problem.shifts[s].day === kept);
    return { id: job.id, from: kept, to, says: movedWhy2() };
  }
  return void 0;
}

// bench/oracle.ts
async function provedOptimum(problem) {
  const prepared = prepare(problem);
  const { parts, days, travel, gardens, mostHands } = prepared;
  const shifts = days.length;
  const cost = [];
  const add = (c) => cost.push(c) - 1;
  const x = parts.map((p) => [...p.shifts].map((_, i) => add(p.costs[i])));
  const left = parts.map((p) => add(p.penalty));
  const y = Array.from(
    { length: shifts },
    () => Array.from({ length: gardens }, () => add(scheduleCosts.visit))
  );
  const rows = [];
  const row = (terms, low, high) => rows.push({ terms, low, high });
  parts.forEach((p, k) => {
    if (p.index > 0)
      row(
        [
          [left[k], 1],
          [left[k - 1], -1]
        ],
        0,
        0
      );
    row([...x[k].map((v) => [v, 1]), [left[k], 1]], 1, 1);
    p.shifts.forEach((s, i) => {
      row(
        [
          [x[k][i], 1],
          [y[s][p.garden], -1]
        ],
        -Infinity,
        0
      );
      if (days[s] < p.earliest || days[s] > p.latest) row([[x[k][i], 1]], 0, 0);
    });
  });
  for (let s = 0; s < shifts; s++) {
    const here = parts.flatMap((p, k) => {
      const i = p.shifts.indexOf(s);
      return i < 0 ? [] : [{ p, v: x[k][i] }];
    });
    const people = [...prepared.problem.shifts[s].people].sort((a, b) => b.minutes - a.minutes);
    const bounded = (worked, by) => {
      const terms = here.flatMap(({ p, v }) => worked(p) > 0 ? [[v, worked(p)]] : []);
      if (terms.length > 0)
        row(
          [...terms, ...y[s].map((v, g) => [v, travel[g] * by.length])],
          -Infinity,
          by.reduce((sum, p) => sum + p.minutes, 0)
        );
    };
    bounded((p) => p.minutes, people);
    for (let set = 1; set < SKILL_SETS; set++)
      bounded(
        (p) => p.skill >= 0 && set & 1 << p.skill ? p.minutes : 0,
        people.filter((p) => skillBits(p.skills) & set)
      );
    for (let most = 1; most < mostHands; most++)
      bounded((p) => minutesBeyond(p.minutes, p.hands, most), people.slice(most));
  }
  parts.forEach((p, k) => {
    for (const { part: a, least, most } of p.before)
      p.shifts.forEach((s, i) => {
        const good = [...parts[a].shifts].flatMap((sa, ia) => {
          const gap = days[s] - days[sa];
          return gap >= least && gap <= most ? [x[a][ia]] : [];
        });
        row([[x[k][i], 1], ...good.map((v) => [v, -1])], -Infinity, 0);
      });
  });
  const starts = [0];
  const indices = [];
  const values = [];
  for (const r of rows) {
    for (const [v, c] of r.terms) {
      indices.push(v);
      values.push(c);
    }
    starts.push(indices.length);
  }
  const highs = await highsLoader();
  return highs.withModel((model) => {
    model.options.set({ output_flag: false, mip_rel_gap: 5e-4, time_limit: 60 });
    model.passModel({
      numCols: cost.length,
      numRows: rows.length,
      colCost: cost,
      colLower: cost.map(() => 0),
      colUpper: cost.map(() => 1),
      rowLower: rows.map((r) => r.low),
      rowUpper: rows.map((r) => r.high),
      matrix: { format: "csr", numRows: rows.length, numCols: cost.length, starts, indices, values },
      integrality: cost.map(() => 1)
    });
    model.run();
    const status = model.getModelStatus();
    if (status !== highs.constants.modelStatus.optimal)
      throw new Error(`HiGHS proved nothing: status ${status}`);
    const found = model.getObjectiveValue();
    return { cost: Math.round(found), gap: Math.max(0, model.info.get("mip_gap")) };
  });
}

// simulated/season.ts
var kinds = [
  ["divide", "plant", [30, 120], [14, 42]],
  ["prune", "cut", [15, 150], [14, 40]],
  ["cut back", "cut", [20, 240], [14, 40]],
  ["deadhead", "none", [10, 40], [3, 8]],
  ["weed", "dig", [20, 120], [5, 12]],
  ["mulch", "lay", [60, 400], [20, 40]],
  ["feed", "spray", [10, 40], [10, 30]],
  ["swap", "plant", [40, 180], [10, 25]],
  ["stake", "none", [10, 60], [14, 30]],
  ["lift", "dig", [20, 90], [5, 14]]
];
var peopleSkills = [
  ["pruning", "machine"],
  ["machine"],
  ["pruning", "spraying"]
];
function simulatedSeason({ seed, jobs, gardens, days, from }) {
  const random = seededRandom(seed);
  const whole = (least, most) => least + Math.floor(random() * (most - least + 1));
  const made = [];
  const gardenIds = Array.from({ length: gardens }, (_, i) => `g${i + 1}`);
  while (made.length < jobs) {
    const n = String(made.length).padStart(4, "0");
    const gardenId = gardenIds[whole(0, gardens - 1)];
    const start = addDays(from, whole(0, days - 30));
    if (random() < 1 / 6 && made.length + 3 <= jobs) {
      const window = windowFrom(start, whole(5, 14), whole(14, 28), whole(5, 14));
      const base = { gardenId, window, minutes: whole(20, 90), skill: null };
      made.push(
        { ...base, id: `${n}a`, operation: "prepare", weather: "dig", after: [] },
        {
          ...base,
          id: `${n}b`,
          operation: "move",
          weather: "plant",
          after: [{ id: `${n}a`, leastDays: 0, mostDays: 14 }]
        },
        {
          ...base,
          id: `${n}c`,
          operation: "aftercare",
          weather: "none",
          minutes: 15,
          window: windowFrom(addDays(window.earliest, 5), 0, 60, 14),
          after: [{ id: `${n}b`, leastDays: 5, mostDays: 12 }]
        }
      );
      continue;
    }
    const [operation, weather, minutes, best] = kinds[whole(0, kinds.length - 1)];
    made.push({
      id: n,
      gardenId,
      operation,
      weather,
      window: windowFrom(start, whole(2, 14), whole(...best), whole(2, 14)),
      minutes: whole(...minutes),
      skill: operation === "prune" ? "pruning" : operation === "feed" ? "spraying" : null,
      after: []
    });
  }
  const shifts = [];
  for (let k = 0; k < days + 60; k++) {
    const day = addDays(from, k);
    const weekday = weekdayOf(day);
    if (weekday === 0 || weekday === 6 || weekday % 2 === 1 && random() < 0.1) continue;
    const people = peopleSkills.map((skills2, i) => ({ id: `p${i}`, minutes: 240, skills: skills2 })).filter((_, i) => (i + weekday) % 2 === 0);
    shifts.push({ id: day, day, people });
  }
  const risk = {};
  for (let k = 0; k < days + 60; k++) risk[addDays(from, k)] = Math.round(random() * random() * 100) / 100;
  return {
    gardens: gardenIds.map((id, i) => ({ id, travelMinutes: 10 + 10 * i })),
    shifts,
    jobs: made,
    unsuitable: { dig: risk, plant: risk, cut: risk, spray: risk }
  };
}
function windowFrom(earliest, before, best, after) {
  const bestFrom = addDays(earliest, before);
  const bestTo = addDays(bestFrom, best);
  return { earliest, bestFrom, bestTo, latest: addDays(bestTo, after) };
}

// verify/plan.ts
var excessOf = (cost, least) => ({
  cost,
  least,
  excess: least === 0 ? cost : cost / least - 1
});
async function seasonExcess(seed) {
  const problem = simulatedSeason({ seed, jobs: 20, gardens: 2, days: 60, from: "2026-03-01" });
  return excessOf(scheduleJobs(problem).cost.total, (await provedOptimum(problem)).cost);
}
function yearExcess(seed) {
  const problem = simulatedSeason({ seed, jobs: 300, gardens: 3, days: 365, from: "2026-01-01" });
  const long = scheduleJobs(problem, { seed: seed + 1, iterations: 10 * FULL_ROUNDS });
  return excessOf(scheduleJobs(problem).cost.total, long.cost.total);
}

// tmpsmall.ts
var f = Number(process.argv[2]);
for (let s = f; s < f + 4; s++) {
  const e = await seasonExcess(s);
  process.stdout.write(`season ${s} ${e.cost} ${e.least} ${(100 * e.excess).toFixed(2)}
`);
}
for (let s = f; s < f + 5; s++) {
  const t = Date.now();
  const e = yearExcess(s);
  process.stdout.write(`year ${s} ${e.cost} ${e.least} ${(100 * e.excess).toFixed(2)} ${Date.now() - t} ms
`);
}
