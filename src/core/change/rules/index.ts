import { operationGone } from "./operationGone.js";
import { operationNew } from "./operationNew.js";
import { operationRenamed } from "./operationRenamed.js";
import { operationMoved } from "./operationMoved.js";
import { operationDeprecated } from "./operationDeprecated.js";
import { authNowRequired } from "./authNowRequired.js";
import { authNoLongerRequired } from "./authNoLongerRequired.js";
import { authSchemeChanged } from "./authSchemeChanged.js";
import { authSchemeGone } from "./authSchemeGone.js";
import { serverElsewhere } from "./serverElsewhere.js";
import { serverOwnGone } from "./serverOwnGone.js";
import { serverMoved } from "./serverMoved.js";
import { operationPagesGone } from "./operationPagesGone.js";
import { askParameterGone } from "./askParameterGone.js";
import { askParameterRenamed } from "./askParameterRenamed.js";
import { askArgumentRenamed } from "./askArgumentRenamed.js";
import { askParameterNew } from "./askParameterNew.js";
import { askParameterNewRequired } from "./askParameterNewRequired.js";
import { askParameterNowRequired } from "./askParameterNowRequired.js";
import { askParameterNowOptional } from "./askParameterNowOptional.js";
import { askDefaultChanged } from "./askDefaultChanged.js";
import { askFieldDefaultChanged } from "./askFieldDefaultChanged.js";
import { askStyleChanged } from "./askStyleChanged.js";
import { askParameterDeprecated } from "./askParameterDeprecated.js";
import { standingNew } from "./standingNew.js";
import { askParameterMoved } from "./askParameterMoved.js";
import { askBodyGone } from "./askBodyGone.js";
import { askBodyNew } from "./askBodyNew.js";
import { askBodyNowRequired } from "./askBodyNowRequired.js";
import { askBodyNowOptional } from "./askBodyNowOptional.js";
import { askMediaChanged } from "./askMediaChanged.js";
import { answerStatusChanged } from "./answerStatusChanged.js";
import { answerStatusNew } from "./answerStatusNew.js";
import { answerStatusGone } from "./answerStatusGone.js";
import { answerBodyChanged } from "./answerBodyChanged.js";
import { answerFormChanged } from "./answerFormChanged.js";
import { answerMediaGone } from "./answerMediaGone.js";
import { answerStreamGone } from "./answerStreamGone.js";
import { failureStatusNew } from "./failureStatusNew.js";
import { failureStatusGone } from "./failureStatusGone.js";
import { answerHeaderGone } from "./answerHeaderGone.js";
import { answerHeaderNew } from "./answerHeaderNew.js";
import { askFieldGone } from "./askFieldGone.js";
import { askFieldRenamed } from "./askFieldRenamed.js";
import { askFieldNew } from "./askFieldNew.js";
import { askFieldNewRequired } from "./askFieldNewRequired.js";
import { askFieldNowRequired } from "./askFieldNowRequired.js";
import { askFieldNowOptional } from "./askFieldNowOptional.js";
import { answerFieldGone } from "./answerFieldGone.js";
import { answerFieldRenamed } from "./answerFieldRenamed.js";
import { answerFieldMoved } from "./answerFieldMoved.js";
import { answerFieldNew } from "./answerFieldNew.js";
import { answerFieldNowOptional } from "./answerFieldNowOptional.js";
import { answerFieldNowAlways } from "./answerFieldNowAlways.js";
import { deprecatedNew } from "./deprecatedNew.js";
import { askKeysForbidden } from "./askKeysForbidden.js";
import { answerKeysGone } from "./answerKeysGone.js";
import { askOneOfNow } from "./askOneOfNow.js";
import { askOneOfGone } from "./askOneOfGone.js";
import { askNullLost } from "./askNullLost.js";
import { askNullGained } from "./askNullGained.js";
import { answerNullGained } from "./answerNullGained.js";
import { answerNullLost } from "./answerNullLost.js";
import { askTypeChanged } from "./askTypeChanged.js";
import { answerTypeChanged } from "./answerTypeChanged.js";
import { askFormatChanged } from "./askFormatChanged.js";
import { answerFormatChanged } from "./answerFormatChanged.js";
import { askLimitTightened } from "./askLimitTightened.js";
import { askLimitLoosened } from "./askLimitLoosened.js";
import { answerLimitWidened } from "./answerLimitWidened.js";
import { answerLimitNarrowed } from "./answerLimitNarrowed.js";
import { askChoiceGone } from "./askChoiceGone.js";
import { askChoiceNew } from "./askChoiceNew.js";
import { answerChoiceGone } from "./answerChoiceGone.js";
import { answerChoiceNew } from "./answerChoiceNew.js";
import { choiceDeprecated } from "./choiceDeprecated.js";
import { askMemberGone } from "./askMemberGone.js";
import { askMemberNew } from "./askMemberNew.js";
import { answerMemberGone } from "./answerMemberGone.js";
import { answerMemberNew } from "./answerMemberNew.js";
import { typeGone } from "./typeGone.js";
import { typeRenamed } from "./typeRenamed.js";
import { typeKindChanged } from "./typeKindChanged.js";
import { typeNameGone } from "./typeNameGone.js";
import { typeOther } from "./typeOther.js";
import { typeNameChanged } from "./typeNameChanged.js";
import { typeInterfaceDropped } from "./typeInterfaceDropped.js";
import { typeInterfaceGained } from "./typeInterfaceGained.js";
import { directiveGone } from "./directiveGone.js";
import { webhookGone } from "./webhookGone.js";
import { webhookNew } from "./webhookNew.js";

/** Every rule, in the order the docs show them. One rule is one file and one code. */
export const rules = [
  operationGone,
  operationNew,
  operationRenamed,
  operationMoved,
  operationDeprecated,
  authNowRequired,
  authNoLongerRequired,
  authSchemeChanged,
  authSchemeGone,
  serverMoved,
  serverElsewhere,
  serverOwnGone,
  operationPagesGone,
  askParameterGone,
  askParameterRenamed,
  askArgumentRenamed,
  askParameterNew,
  askParameterNewRequired,
  askParameterNowRequired,
  askParameterNowOptional,
  askDefaultChanged,
  askFieldDefaultChanged,
  askStyleChanged,
  askParameterDeprecated,
  standingNew,
  askParameterMoved,
  askBodyGone,
  askBodyNew,
  askBodyNowRequired,
  askBodyNowOptional,
  askMediaChanged,
  answerStatusChanged,
  answerStatusNew,
  answerStatusGone,
  answerBodyChanged,
  answerFormChanged,
  answerMediaGone,
  answerStreamGone,
  failureStatusNew,
  failureStatusGone,
  answerHeaderGone,
  answerHeaderNew,
  askFieldGone,
  askFieldRenamed,
  askFieldNew,
  askFieldNewRequired,
  askFieldNowRequired,
  askFieldNowOptional,
  answerFieldGone,
  answerFieldRenamed,
  answerFieldMoved,
  answerFieldNew,
  answerFieldNowOptional,
  answerFieldNowAlways,
  deprecatedNew,
  askKeysForbidden,
  answerKeysGone,
  askOneOfNow,
  askOneOfGone,
  askNullLost,
  askNullGained,
  answerNullGained,
  answerNullLost,
  askTypeChanged,
  answerTypeChanged,
  askFormatChanged,
  answerFormatChanged,
  askLimitTightened,
  askLimitLoosened,
  answerLimitWidened,
  answerLimitNarrowed,
  askChoiceGone,
  askChoiceNew,
  answerChoiceGone,
  answerChoiceNew,
  choiceDeprecated,
  askMemberGone,
  askMemberNew,
  answerMemberGone,
  answerMemberNew,
  typeGone,
  typeRenamed,
  typeKindChanged,
  typeNameGone,
  typeOther,
  typeNameChanged,
  typeInterfaceDropped,
  typeInterfaceGained,
  directiveGone,
  webhookGone,
  webhookNew,
] as const;
