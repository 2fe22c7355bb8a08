import { addInverse, type Complex, invert, inverted, multiply } from '../units/complex';
import type { Circuit, Driver, Net, Section } from './circuit';

/** A picosiemens to ground keeps a net that hangs on nothing from having no solution. */
const HARDLY_ANY = 1e-12;

/** The admittance to ground at a net: leads, input impedances, pots, capacitors, coils at rest. */
function shuntAdmittance({ leadFarads, shunts }: Net, w: number): Complex {
  let [re, im] = [HARDLY_ANY, w * leadFarads];
  for (const { ohms, farads, henries } of shunts) {
    if (!henries && farads === 0) re += ohms === Infinity ? 0 : 1 / Math.max(ohms, 0.01);
    else if (!henries && ohms === 0) im += w * farads;
    else {
      const reactance = henries ? w * henries : -1 / (w * farads);
      const m = ohms * ohms + reactance * reactance;
      re += ohms / m;
      im -= reactance / m;
    }
  }
  return { re, im };
}

/** What a passive section does at one frequency. Nets and drivers are counted within the section. */
export interface Solution {
  /** Voltage at a net for one volt of a driver's unloaded voltage. */
  transfer: (driver: number, net: number) => number;
  /** The same with its phase. */
  response: (driver: number, net: number) => Complex;
  /** Impedance seen at a net, in ohms. */
  impedance: (net: number) => Complex;
}

/**
 * Solves a passive section by nodal analysis: every net is a node, every pickup or output a voltage
 * source behind its impedance. With one net this is `H(jω) = 1 / (1 + (R + jωL)·Y)`, `Y` being the
 * sum of the shunt admittances.
 */
export function solveSection(circuit: Circuit, section: Section, hertz: number): Solution {
  // Nodal analysis. What flows out of each net through resistors and shunts is what flows in from
  // its drivers, each a voltage behind its impedance and so a current into its admittance: Y·u = i.
  // Y is gathered entry by entry, what lies between two nets with a minus sign off the diagonal; its
  // inverse holds every answer at once. The voltage at net n for one volt of a driver on net k is
  // the entry (n, k) times the driver's admittance, and the impedance seen at n is the entry (n, n).
  // Numbers lie in one list, the real part before the imaginary one: most sections have one net, and
  // are solved many thousand times.
  const { nets, drivers, resistors } = section;
  const w = 2 * Math.PI * hertz;
  const size = nets.length;
  if (size === 1) return oneNet(shuntAdmittance(circuit.nets[nets[0]!]!, w), drivers, w);
  const entry = (row: number, column: number) => 2 * (row * size + column);
  const series = new Float64Array(2 * drivers.length);
  const y = new Float64Array(2 * size * size);
  const drivenAt = drivers.map((d) => nets.indexOf(d.net));
  nets.forEach((net, n) => {
    const { re, im } = shuntAdmittance(circuit.nets[net]!, w);
    y[entry(n, n)] = re;
    y[entry(n, n) + 1] = im;
  });
  drivers.forEach((d, k) => {
    addInverse(series, 2 * k, d.ohms, w * d.henries);
    const own = entry(drivenAt[k]!, drivenAt[k]!);
    y[own]! += series[2 * k]!;
    y[own + 1]! += series[2 * k + 1]!;
  });
  for (const r of resistors) {
    const [i, j, siemens] = [nets.indexOf(r.a), nets.indexOf(r.b), 1 / r.ohms];
    y[entry(i, i)]! += siemens;
    y[entry(j, j)]! += siemens;
    y[entry(i, j)]! -= siemens;
    y[entry(j, i)]! -= siemens;
  }
  const inverse = inverted(y, size);
  const response = (driver: number, net: number): Complex => {
    const e = entry(net, drivenAt[driver]!);
    const [re, im] = [inverse[e]!, inverse[e + 1]!];
    const [gr, gi] = [series[2 * driver]!, series[2 * driver + 1]!];
    return { re: re * gr - im * gi, im: re * gi + im * gr };
  };
  return {
    transfer: (driver, net) => length(response(driver, net)),
    response,
    impedance: (net) => ({ re: inverse[entry(net, net)]!, im: inverse[entry(net, net) + 1]! }),
  };
}

/** The same where all of a section is one net, in closed form. */
function oneNet(y: Complex, drivers: readonly Driver[], w: number): Solution {
  for (const d of drivers) {
    const g = invert({ re: d.ohms, im: w * d.henries });
    y.re += g.re;
    y.im += g.im;
  }
  const impedance = invert(y);
  const response = (driver: number): Complex => {
    const { ohms, henries } = drivers[driver]!;
    return multiply(impedance, invert({ re: ohms, im: w * henries }));
  };
  return {
    transfer: (driver) => length(response(driver)),
    response,
    impedance: () => impedance,
  };
}

/** Without the care for extremes that `Math.hypot` takes: what is here is a ratio of voltages. */
const length = ({ re, im }: Complex): number => Math.sqrt(re * re + im * im);
