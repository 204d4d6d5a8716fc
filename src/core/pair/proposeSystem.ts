// Styles of one family as a system: a size on a modular scale for every role, and of the family the style whose text is as grey as the role
// asks for. Grey is the share of a letter's width that its stem takes: what a block of text looks like from afar.
import { SYSTEM_ROLES, type SystemContrast, type SystemRole } from "@/contracts/compare";

/** A style of the family, or a weight that a variable one can be set at. */
export type SystemMember = {
  styleId: string;
  style: string;
  /** Where on its axes; none for a style that is a file of its own. */
  location: Record<string, number>;
  weight: number;
  stemEm: number;
  widthEm: number;
};
type SystemStep = {
  role: SystemRole;
  member: SystemMember;
  /** Size beside the text's. */
  sizeRatio: number;
  leadingEm: number;
  /** Of the style that was chosen, and what was looked for, 0–1. */
  grey: number;
  wantedGrey: number;
};

/**
 * What each role is: its step on the scale, its leading, and how grey it should be beside the text. Small sizes lose ink to the eye and are
 * a little darker; headings that are to speak are half as dark again.
 */
const PLAN: Record<SystemRole, { step: number; leadingEm: number; grey: Record<SystemContrast, number> }> = {
  title: { step: 4, leadingEm: 1.05, grey: { even: 1, strong: 1.75 } },
  heading: { step: 2, leadingEm: 1.15, grey: { even: 1, strong: 1.5 } },
  lead: { step: 1, leadingEm: 1.3, grey: { even: 1, strong: 1 } },
  text: { step: 0, leadingEm: 1.45, grey: { even: 1, strong: 1 } },
  caption: { step: -1, leadingEm: 1.4, grey: { even: 1.06, strong: 1.06 } },
};

export const greyOf = ({ stemEm, widthEm }: Pick<SystemMember, "stemEm" | "widthEm">) => stemEm / widthEm;

/**
 * @param text - the style that running text is set in. @param members - of its family, of its slant and width; `text` among them.
 * @param ratio - between two steps of the scale, 1.05–2.
 * @returns one step a role, largest first.
 */
export function proposeSystem(
  text: SystemMember,
  members: readonly SystemMember[],
  { ratio, contrast }: { ratio: number; contrast: SystemContrast },
): SystemStep[] {
  return SYSTEM_ROLES.map((role) => {
    const { step, leadingEm, grey } = PLAN[role];
    const wantedGrey = greyOf(text) * grey[contrast];
    const off = (m: SystemMember) => Math.abs(Math.log(greyOf(m) / wantedGrey));
    // What the text is set in stays, unless another is plainly nearer.
    const nearest = members.reduce((best, m) => (off(m) < off(best) - LEAST_GAIN ? m : best), text);
    return {
      role,
      member: nearest,
      sizeRatio: Number((ratio ** step).toFixed(3)),
      leadingEm,
      grey: Number(greyOf(nearest).toFixed(4)),
      wantedGrey: Number(wantedGrey.toFixed(4)),
    };
  });
}
/** A hundredth darker or lighter is seen by nobody. */
const LEAST_GAIN = 0.01;

/** Weights at which a variable style can stand, a step of usWeightClass apart; stems grow with the weight. */
export function membersOfVariable(member: SystemMember, { min, max }: { min: number; max: number }): SystemMember[] {
  const out: SystemMember[] = [];
  for (let weight = Math.ceil(min / 100) * 100; weight <= max; weight += 100)
    out.push({
      ...member,
      location: { ...member.location, wght: weight },
      weight,
      stemEm: (member.stemEm * weight) / member.weight,
    });
  return out;
}
