import { operationGone } from "./operations/operationGone.js";
import { operationNew } from "./operations/operationNew.js";
import { operationRenamed } from "./operations/operationRenamed.js";
import { operationMoved } from "./operations/operationMoved.js";
import { operationDeprecated } from "./operations/operationDeprecated.js";
import { authNowRequired } from "./operations/authNowRequired.js";
import { authNoLongerRequired } from "./operations/authNoLongerRequired.js";
import { authSchemeChanged } from "./operations/authSchemeChanged.js";
import { authSchemeGone } from "./operations/authSchemeGone.js";
import { serverElsewhere } from "./operations/serverElsewhere.js";
import { serverOwnGone } from "./operations/serverOwnGone.js";
import { serverMoved } from "./operations/serverMoved.js";
import { operationPagesGone } from "./operations/operationPagesGone.js";
import { askParameterGone } from "./parameters/askParameterGone.js";
import { askParameterRenamed } from "./parameters/askParameterRenamed.js";
import { askArgumentRenamed } from "./parameters/askArgumentRenamed.js";
import { askParameterNew } from "./parameters/askParameterNew.js";
import { askParameterNewRequired } from "./parameters/askParameterNewRequired.js";
import { askParameterNowRequired } from "./parameters/askParameterNowRequired.js";
import { askParameterNowOptional } from "./parameters/askParameterNowOptional.js";
import { askDefaultChanged } from "./parameters/askDefaultChanged.js";
import { askFieldDefaultChanged } from "./requests/askFieldDefaultChanged.js";
import { askStyleChanged } from "./parameters/askStyleChanged.js";
import { askParameterDeprecated } from "./parameters/askParameterDeprecated.js";
import { standingNew } from "./parameters/standingNew.js";
import { askParameterMoved } from "./parameters/askParameterMoved.js";
import { askBodyGone } from "./requests/askBodyGone.js";
import { askBodyNew } from "./requests/askBodyNew.js";
import { askBodyNowRequired } from "./requests/askBodyNowRequired.js";
import { askBodyNowOptional } from "./requests/askBodyNowOptional.js";
import { askMediaChanged } from "./requests/askMediaChanged.js";
import { answerStatusChanged } from "./responses/answerStatusChanged.js";
import { answerStatusNew } from "./responses/answerStatusNew.js";
import { answerStatusGone } from "./responses/answerStatusGone.js";
import { answerBodyChanged } from "./responses/answerBodyChanged.js";
import { answerFormChanged } from "./responses/answerFormChanged.js";
import { answerMediaGone } from "./responses/answerMediaGone.js";
import { answerStreamGone } from "./responses/answerStreamGone.js";
import { failureStatusNew } from "./responses/failureStatusNew.js";
import { failureStatusGone } from "./responses/failureStatusGone.js";
import { answerHeaderGone } from "./responses/answerHeaderGone.js";
import { answerHeaderNew } from "./responses/answerHeaderNew.js";
import { askFieldGone } from "./requests/askFieldGone.js";
import { askFieldRenamed } from "./requests/askFieldRenamed.js";
import { askFieldNew } from "./requests/askFieldNew.js";
import { askFieldNewRequired } from "./requests/askFieldNewRequired.js";
import { askFieldNowRequired } from "./requests/askFieldNowRequired.js";
import { askFieldNowOptional } from "./requests/askFieldNowOptional.js";
import { answerFieldGone } from "./answers/answerFieldGone.js";
import { answerFieldRenamed } from "./answers/answerFieldRenamed.js";
import { answerFieldMoved } from "./answers/answerFieldMoved.js";
import { answerFieldNew } from "./answers/answerFieldNew.js";
import { answerFieldNowOptional } from "./answers/answerFieldNowOptional.js";
import { answerFieldNowAlways } from "./answers/answerFieldNowAlways.js";
import { deprecatedNew } from "./operations/deprecatedNew.js";
import { askKeysForbidden } from "./requests/askKeysForbidden.js";
import { answerKeysGone } from "./answers/answerKeysGone.js";
import { askOneOfNow } from "./requests/askOneOfNow.js";
import { askOneOfGone } from "./requests/askOneOfGone.js";
import { askNullLost } from "./requests/askNullLost.js";
import { askNullGained } from "./requests/askNullGained.js";
import { answerNullGained } from "./answers/answerNullGained.js";
import { answerNullLost } from "./answers/answerNullLost.js";
import { askTypeChanged } from "./requests/askTypeChanged.js";
import { answerTypeChanged } from "./answers/answerTypeChanged.js";
import { askFormatChanged } from "./requests/askFormatChanged.js";
import { answerFormatChanged } from "./answers/answerFormatChanged.js";
import { askLimitTightened } from "./requests/askLimitTightened.js";
import { askLimitLoosened } from "./requests/askLimitLoosened.js";
import { answerLimitWidened } from "./answers/answerLimitWidened.js";
import { answerLimitNarrowed } from "./answers/answerLimitNarrowed.js";
import { askChoiceGone } from "./requests/askChoiceGone.js";
import { askChoiceNew } from "./requests/askChoiceNew.js";
import { answerChoiceGone } from "./answers/answerChoiceGone.js";
import { answerChoiceNew } from "./answers/answerChoiceNew.js";
import { choiceDeprecated } from "./types/choiceDeprecated.js";
import { askMemberGone } from "./requests/askMemberGone.js";
import { askMemberNew } from "./requests/askMemberNew.js";
import { answerMemberGone } from "./answers/answerMemberGone.js";
import { answerMemberNew } from "./answers/answerMemberNew.js";
import { typeGone } from "./types/typeGone.js";
import { typeRenamed } from "./types/typeRenamed.js";
import { typeKindChanged } from "./types/typeKindChanged.js";
import { typeNameGone } from "./types/typeNameGone.js";
import { typeOther } from "./types/typeOther.js";
import { typeNameChanged } from "./types/typeNameChanged.js";
import { typeInterfaceDropped } from "./types/typeInterfaceDropped.js";
import { typeInterfaceGained } from "./types/typeInterfaceGained.js";
import { directiveGone } from "./operations/directiveGone.js";
import { webhookGone } from "./operations/webhookGone.js";
import { webhookNew } from "./operations/webhookNew.js";

/** Every rule, in the order of the docs. One rule is one file and one code. */
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
