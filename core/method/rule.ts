import type { OwnMethod } from './ownMethod';
import type { Rule } from './ruleSchema';

/** Above this, surface or battery, heat is worth a remark (common practice, no source), °C. */
export const HOT = 40;

/** A run of no method: to 100 % by its levels. */
export const USUAL_RULE: Rule = { ends: 'full', wants: ['level'] };

/** A method of one’s own with a rule: those that were kept before rules were have the usual one. */
export const withRule = (method: Omit<OwnMethod, 'rule'> & { rule?: Rule }): OwnMethod => ({ ...method, rule: method.rule ?? USUAL_RULE });
