import type { Translation } from "@radicula/core/words";
import type { revealed as english } from "../en/revealed";

export const revealed: Translation<typeof english> = {
  "revealed.youNamedIt": "Richtig benannt.",
  "revealed.itIsAmongTheRepairsYou": "Er ist unter den benannten Reparaturen.",
  "revealed.youNamedAPartOfIt": "Ein Teil davon ist benannt.",
  "revealed.youNamedSomethingElse": "Etwas anderes wurde benannt.",
  "revealed.youNamedNoCause": "Keine Ursache wurde benannt.",
  "revealed.whatWasHidden": "Was versteckt war",
  "revealed.itComesAndGoesThereOf": "Er kommt und geht: {presence} % der Zeit da.",
  "revealed.theConnectorThatLookedLikeWas": "Der Stecker, der wie {from} aussah, war {to}.",
  "revealed.yourVerdict": "Urteil: {text}.",
  "revealed.tests": "Tests",
  "revealed.time": "Zeit",
  "revealed.you": "Hier",
  "revealed.minFromTheFirstReadingTo": "{minutes} min von der ersten bis zur letzten Messung",
  "revealed.thePlan": "Der Plan",
  "revealed.aboutMinAtTheMachine": "etwa {minutes} min an der Maschine",
  "revealed.playingTheJobByThePlan": "Der Auftrag wird nach Plan durchgespielt …",
  "revealed.thePlanCannotBePlayedHere": "Der Plan lässt sich hier nicht durchspielen.",
  "revealed.thePlansTests": "Die {stepsCount} Tests des Plans",
  "revealed.itEndsAtTheHiddenFault": "Er endet beim versteckten Fehler.",
  "revealed.onThisMachineThePlanItself": "An dieser Maschine endet auch der Plan bei der falschen Ursache.",
  "revealed.onThisMachineThePlanItself2": "An dieser Maschine findet auch der Plan keine sichere Ursache.",
  "revealed.thisFaultSetsNoCode": "Dieser Fehler setzt keinen Code.",
};
