export { ranked, triedSays, underLoad } from './tried';
export { type Claim } from './claims';
export { CAUTIONS } from './cautions';
export { judge, weightiest } from './judge';
export {
  groupsOf,
  questionOf,
  usualWindow,
  USUAL_WISHES,
  WISHES,
  type Finding,
  type Group,
  type Question,
  type AdviceGear,
  type Wishes,
} from './question';
export { worthOf } from './worth';
export { balanceOf } from './balance';
export { type Plotted } from './frontier';
export { oneForAll, type OneForAll } from './oneForAll';
export { headlineOf, type Headline } from './headline';
export { findingParts, findingText, verdictText } from './verdictText';
