/** What each change code says, with an example. `docs/changes.md` is printed from this table. */
export interface ChangeMeaning {
  readonly title: string;
  readonly example: string;
  /** Verdict on source code and on released apps, in words. */
  readonly code: string;
  readonly apps: string;
}

const meanings = {
  "operation.gone": {
    title: "An operation was removed",
    example: "`DELETE /berths/{berthId}` is no longer there",
    code: "breaking",
    apps: "breaking",
  },
  "operation.new": {
    title: "An operation was added",
    example: "`GET /moorings`",
    code: "compatible",
    apps: "compatible",
  },
  "operation.renamed": {
    title: "An operation got another operationId",
    example: "`listBerths` is now `findBerths`",
    code: "breaking: the call has another name",
    apps: "compatible: the request is the same",
  },
  "operation.moved": {
    title: "An operation moved to another path or method",
    example: "`tideTable` moved from `/tides/{day}` to `/tide-tables/{day}`",
    code: "compatible: the call keeps its name",
    apps: "breaking: the old path is gone",
  },
  "operation.deprecated": {
    title: "An operation was marked as deprecated",
    example: "`listTariffs` is deprecated",
    code: "compatible",
    apps: "compatible",
  },
  "auth.now-required": {
    title: "Auth is required where none was, or of another kind",
    example: "`GET /tariffs` now wants `harbourToken`",
    code: "breaking at the connection",
    apps: "breaking",
  },
  "ask.parameter.gone": {
    title: "A parameter was removed",
    example: "`listBerths` lost `minLength`",
    code: "breaking",
    apps: "risky: what is sent is ignored",
  },
  "ask.parameter.renamed": {
    title: "A parameter was renamed",
    example: "`quay` is now `quayName`",
    code: "breaking",
    apps: "compatible in the path, else breaking or risky",
  },
  "ask.parameter.new": {
    title: "An optional parameter was added",
    example: "`listBerths` takes `sort`",
    code: "compatible",
    apps: "compatible",
  },
  "ask.parameter.new-required": {
    title: "A required parameter was added",
    example: "`listBerths` demands `harbourId`",
    code: "breaking",
    apps: "breaking",
  },
  "ask.parameter.now-required": {
    title: "A parameter became required",
    example: "`until` is required now",
    code: "breaking",
    apps: "breaking",
  },
  "ask.parameter.now-optional": {
    title: "A parameter became optional",
    example: "`from` may be left out",
    code: "compatible",
    apps: "compatible",
  },
  "ask.default.changed": {
    title: "The server's default changed",
    example: "`pageSize` is 50 instead of 20 when absent",
    code: "compatible",
    apps: "risky",
  },
  "ask.style.changed": {
    title: "A parameter is written another way",
    example: "`status` is `a,b` instead of repeated",
    code: "compatible",
    apps: "breaking",
  },
  "ask.body.gone": {
    title: "A request body was removed",
    example: "`cancelReservation` takes no body",
    code: "breaking",
    apps: "risky",
  },
  "ask.body.new": {
    title: "An optional request body was added",
    example: "`removeBerth` takes a body",
    code: "compatible",
    apps: "compatible",
  },
  "ask.body.now-required": {
    title: "A request body became required",
    example: "`changeBerth` demands a body",
    code: "breaking",
    apps: "breaking",
  },
  "ask.media.changed": {
    title: "The body's media type changed",
    example: "JSON became multipart",
    code: "compatible",
    apps: "breaking",
  },
  "ask.field.gone": {
    title: "A field that could be sent was removed",
    example: "`ReservationRequest.crew`",
    code: "breaking",
    apps: "risky, breaking when undeclared fields are forbidden",
  },
  "ask.field.renamed": {
    title: "A field that is sent was renamed",
    example: "`crew` is now `crewSize`",
    code: "breaking",
    apps: "risky, breaking when the new one is required",
  },
  "ask.field.new": {
    title: "An optional field can be sent",
    example: "`ReservationRequest.pets`",
    code: "compatible",
    apps: "compatible",
  },
  "ask.field.new-required": {
    title: "A required field has to be sent",
    example: "`ReservationRequest.insurance`",
    code: "breaking",
    apps: "breaking",
  },
  "ask.field.now-required": {
    title: "A field that is sent became required",
    example: "`ReservationRequest.crew`",
    code: "breaking",
    apps: "breaking",
  },
  "ask.field.now-optional": {
    title: "A field that is sent became optional",
    example: "`ReservationRequest.departure`",
    code: "compatible",
    apps: "compatible",
  },
  "ask.null.lost": {
    title: "Null can no longer be sent",
    example: "`BerthChange.note`",
    code: "breaking",
    apps: "breaking",
  },
  "ask.null.gained": {
    title: "Null can be sent",
    example: "`ReservationRequest.crew`",
    code: "compatible",
    apps: "compatible",
  },
  "ask.type.changed": {
    title: "What is sent has another type",
    example: "`crew` is text instead of an integer",
    code: "breaking",
    apps: "breaking",
  },
  "ask.format.changed": {
    title: "What is sent has another format",
    example: "`arrival` is a moment instead of a day",
    code: "compatible",
    apps: "breaking",
  },
  "ask.choice.gone": {
    title: "A choice can no longer be sent",
    example: "status `closed`",
    code: "breaking",
    apps: "breaking",
  },
  "ask.choice.new": {
    title: "Another choice can be sent",
    example: "status `dredging`",
    code: "compatible",
    apps: "compatible",
  },
  "ask.limit.tightened": {
    title: "A limit on what is sent became narrower",
    example: "at most 50 items instead of 100",
    code: "compatible",
    apps: "breaking",
  },
  "ask.limit.loosened": {
    title: "A limit on what is sent became wider",
    example: "at most 200 items instead of 100",
    code: "compatible",
    apps: "compatible",
  },
  "ask.member.gone": {
    title: "A kind of value can no longer be sent",
    example: "rowing vessels",
    code: "breaking",
    apps: "breaking",
  },
  "ask.member.new": {
    title: "Another kind of value can be sent",
    example: "hovercraft",
    code: "compatible",
    apps: "compatible",
  },
  "answer.status.changed": {
    title: "Success has another status with the same body",
    example: "200 became 201",
    code: "compatible",
    apps: "risky",
  },
  "answer.body.changed": {
    title: "Success gained or lost its body",
    example: "200 with a body became 204",
    code: "breaking",
    apps: "breaking",
  },
  "failure.status.new": {
    title: "A failure status was added",
    example: "`reserveBerth` can fail with 423",
    code: "risky: an exhaustive match",
    apps: "risky",
  },
  "failure.status.gone": {
    title: "A failure status is no longer declared",
    example: "`removeBerth` no longer declares 409",
    code: "breaking where it is compared",
    apps: "compatible",
  },
  "answer.field.gone": {
    title: "A field is no longer answered",
    example: "`Berth.note`",
    code: "breaking",
    apps: "breaking when it was always there",
  },
  "answer.field.renamed": {
    title: "A field is answered under another name",
    example: "`Berth.draught` is now `depth`",
    code: "breaking",
    apps: "breaking when it was always there",
  },
  "answer.field.new": {
    title: "Another field is answered",
    example: "`Berth.photos`",
    code: "compatible; risky for hand-built answers when it is always there",
    apps: "compatible",
  },
  "answer.field.now-optional": {
    title: "A field may be absent from answers",
    example: "`Berth.quay`",
    code: "breaking",
    apps: "breaking",
  },
  "answer.field.now-always": {
    title: "A field is always there in answers",
    example: "`BerthPage.total`",
    code: "risky for hand-built answers",
    apps: "compatible",
  },
  "answer.null.gained": {
    title: "An answer can be null",
    example: "`Voyage.from`",
    code: "breaking",
    apps: "breaking",
  },
  "answer.null.lost": {
    title: "An answer can no longer be null",
    example: "`Voyage.berth`",
    code: "compatible",
    apps: "compatible; risky in GraphQL, where an error now nulls the parent",
  },
  "answer.type.changed": {
    title: "An answer has another type",
    example: "`Berth.length` is text instead of a number",
    code: "breaking",
    apps: "breaking",
  },
  "answer.format.changed": {
    title: "An answer has another format",
    example: "`Reservation.arrival` is a moment instead of a day",
    code: "compatible while dates are kept as text",
    apps: "risky",
  },
  "answer.choice.gone": {
    title: "A choice is no longer answered",
    example: "status `reserved`",
    code: "breaking where it is compared",
    apps: "compatible",
  },
  "answer.choice.new": {
    title: "Another choice can be answered",
    example: "status `dredging`",
    code: "risky: an exhaustive match",
    apps: "breaking for closed choices",
  },
  "answer.limit.widened": {
    title: "A limit on answers became wider",
    example: "`level` up to 12 instead of 9",
    code: "compatible",
    apps: "risky",
  },
  "answer.limit.narrowed": {
    title: "A limit on answers became narrower",
    example: "`level` up to 8 instead of 9",
    code: "compatible",
    apps: "compatible",
  },
  "answer.member.gone": {
    title: "A kind of value is no longer answered",
    example: "rowing vessels",
    code: "breaking where it is matched",
    apps: "compatible",
  },
  "answer.member.new": {
    title: "Another kind of value can be answered",
    example: "hovercraft",
    code: "risky: an exhaustive match",
    apps: "breaking for closed unions",
  },
  "type.gone": {
    title: "A named type was removed",
    example: "`WorkBoat`",
    code: "breaking where it is named",
    apps: "breaking where it is named",
  },
  "type.kind.changed": {
    title: "A name stands for another kind of type",
    example: "the interface `Vessel` became a union",
    code: "breaking",
    apps: "breaking",
  },
  "type.interface.dropped": {
    title: "A type no longer implements an interface",
    example: "`WorkBoat` is no `Vessel`",
    code: "breaking where a document bridges the two",
    apps: "breaking where a document bridges the two",
  },
  "deprecated.new": {
    title: "Something was marked as deprecated",
    example: "`Voyage.remarks`",
    code: "compatible",
    apps: "compatible",
  },
} as const satisfies Record<string, ChangeMeaning>;

export type ChangeCode = keyof typeof meanings;

/** Every change code with its meaning, in the order the docs show them. */
export const changeMeanings: Readonly<Record<ChangeCode, ChangeMeaning>> = meanings;
