import {
  add,
  complex,
  type Complex,
  invert,
  invertMatrix,
  magnitude,
  multiply,
  subtract,
} from '../units/complex';
import type { Circuit, Net, Section } from './circuit';

/** The admittance to ground at a net: leads, input impedances, pots, capacitors, coils at rest. */
function shuntAdmittance(net: Net, w: number): Complex {
  let y = complex(0, w * net.leadFarads);
  for (const { ohms, farads, henries } of net.shunts) {
    if (henries) y = add(y, invert(complex(ohms, w * henries)));
    else if (farads === 0) y = add(y, complex(ohms === Infinity ? 0 : 1 / Math.max(ohms, 0.01)));
    else if (ohms === 0) y = add(y, complex(0, w * farads));
    else y = add(y, invert(complex(ohms, -1 / (w * farads))));
  }
  return y;
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
  // A picosiemens to ground keeps a net that hangs on nothing from having no solution.
  const w = 2 * Math.PI * hertz;
  const at = new Map(section.nets.map((net, i) => [net, i]));
  const series = section.drivers.map((d) => invert(complex(d.ohms, w * d.henries)));
  const matrix = section.nets.map((net, i) =>
    section.nets.map((_, j) =>
      i === j ? add(shuntAdmittance(circuit.nets[net]!, w), complex(1e-12)) : complex(0),
    ),
  );
  section.drivers.forEach((d, k) => {
    const i = at.get(d.net)!;
    matrix[i]![i] = add(matrix[i]![i]!, series[k]!);
  });
  for (const r of section.resistors) {
    const [i, j, y] = [at.get(r.a)!, at.get(r.b)!, complex(1 / r.ohms)];
    matrix[i]![i] = add(matrix[i]![i]!, y);
    matrix[j]![j] = add(matrix[j]![j]!, y);
    matrix[i]![j] = subtract(matrix[i]![j]!, y);
    matrix[j]![i] = subtract(matrix[j]![i]!, y);
  }
  const inverse = invertMatrix(matrix);
  const response = (driver: number, net: number) =>
    multiply(inverse[net]![at.get(section.drivers[driver]!.net)!]!, series[driver]!);
  return {
    transfer: (driver, net) => magnitude(response(driver, net)),
    response,
    impedance: (net) => inverse[net]![net]!,
  };
}
