import type { Figure, FigureRole, Kind, Parameter, SettingRole } from './kind';

/** The setting of a kind that plays a role, where it has one. */
export const settingWith = (kind: Kind, role: SettingRole): Parameter | undefined =>
  kind.parameters.find((p) => p.role === role);

/** The figure of a kind that plays a role, where it has one. */
export const figureWith = (kind: Kind, role: FigureRole): Figure | undefined =>
  kind.figures.find((f) => f.role === role);
