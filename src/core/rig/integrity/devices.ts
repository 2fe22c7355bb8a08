import { findKind, KINDS } from '../../kinds';
import type { Device } from '../schema';
import { outletsOf } from '../find';
import { kindIdOf, sheetIdOf } from '../sheets/own-kinds';
import { type Check, nearest } from './checking';

/** Kinds that are not there, and figures that nobody would believe. */
export const checkDevices: Check = (rig, _, say) =>
  rig.devices.forEach((device, row) => {
    const at = `devices[${row}]`;
    const kind = findKind(device.kind);
    if (!kind)
      return say(`${at}.kind`, `there is no kind "${device.kind}"; ${nearest(device.kind)}`);
    const sheet = sheetIdOf(device.kind);
    if (sheet !== undefined && !rig.sheets?.some((s) => kindIdOf(s) === device.kind))
      say(`${at}.kind`, `this rig holds no sheet "${sheet}" that says what ${device.name} is`);
    for (const [id, { value }] of Object.entries(device.figures ?? {})) {
      const figure = kind.figures.find((f) => f.id === id);
      if (figure && (value < figure.min || value > figure.max))
        say(
          `${at}.figures.${id}`,
          `${value} ${figure.unit} is not believable for "${figure.label}"; ` +
            `give ${figure.min} to ${figure.max} ${figure.unit}`,
        );
    }
  });

/** Where devices live inside another, and what that other can hold. */
export const checkHosts: Check = (rig, devices, say) =>
  rig.devices.forEach((device, row) => {
    if (device.host === undefined) return;
    const host = devices.get(device.host);
    if (!host || device.host === device.id)
      say(`devices[${row}].host`, `"${device.host}" is not another device of this rig`);
    else if (!host.kind.hosts)
      say(
        `devices[${row}].host`,
        `${host.device.name} (${host.kind.name}) is no host; blocks live in ${KINDS.filter(
          (k) => k.hosts,
        )
          .map((k) => `"${k.id}"`)
          .join(', ')}`,
      );
    else if (hostsOf(device.id, devices).includes(device.id))
      say(
        `devices[${row}].host`,
        `${device.name} would live inside itself; follow its hosts and take one out`,
      );
    const own = devices.get(device.id)?.kind;
    if (own && !own.block && !own.hosts)
      say(
        `devices[${row}].host`,
        `${device.name} (${own.name}) cannot live inside a host: it has no block form`,
      );
  });

/** Which outlet a device hangs on, and what a supply gives. */
export const checkSupplies: Check = (rig, devices, say) =>
  rig.devices.forEach((device, row) => {
    const supply = device.supply && devices.get(device.supply.device);
    const outlets = supply && outletsOf(supply.device);
    if (device.supply !== undefined && !outlets) {
      say(
        `devices[${row}].supply`,
        `"${device.supply.device}" is no supply of this rig; use a device of the kind ` +
          '"supply-isolated" or "supply-shared", or write in what it hands on',
      );
    } else if (
      device.supply?.outlet !== undefined &&
      !outlets!.some((o) => o.id === device.supply!.outlet)
    ) {
      say(
        `devices[${row}].supply.outlet`,
        `it has the outlets ${outlets!.map((o) => `"${o.id}"`).join(', ')}`,
      );
    }
    if (device.gives && device.host !== undefined)
      say(
        `devices[${row}].gives`,
        `${device.name} is a block in a host and feeds nobody; leave out what it gives`,
      );
    const twice = device.gives?.outlets.find(
      (o, k, all) => all.findIndex((x) => x.id === o.id) < k,
    );
    if (twice)
      say(
        `devices[${row}].gives.outlets`,
        `two outlets are called "${twice.id}"; give each its own id`,
      );
  });

/** The hosts around a device, innermost first; a circle of hosts ends where it closes. */
function hostsOf(id: string, devices: ReadonlyMap<string, { device: Device }>): string[] {
  const hosts: string[] = [];
  for (
    let at = devices.get(id)?.device.host;
    at !== undefined && !hosts.includes(at);
    at = devices.get(at)?.device.host
  )
    hosts.push(at);
  return hosts;
}
