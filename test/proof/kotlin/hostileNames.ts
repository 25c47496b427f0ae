/** Names that are words of the language, of its platform or of printed code, or that could end the text around them. */
export const hostileNames: readonly string[] = [
  ..."as break class continue do else false for fun if in interface is null object package return super this throw true".split(
    " ",
  ),
  ..."try typealias typeof val var when while by catch constructor delegate dynamic field file finally get import init".split(
    " ",
  ),
  ..."set where actual annotation companion const crossinline data enum external infix inline inner internal lateinit".split(
    " ",
  ),
  ..."open operator out override private public sealed suspend tailrec value vararg it name ordinal entries values".split(
    " ",
  ),
  ..."valueOf copy component1 hashCode equals toString getClass wait notify clone finalize apply also let run with use".split(
    " ",
  ),
  ..."options body settings auth baseUrl client fields declared tag json text other others read write send receive".split(
    " ",
  ),
  ..."Any Boolean Companion Double Exception Int Iterable List Long Map Nothing Pair Result String Throwable Unit".split(
    " ",
  ),
  ..."Form Reader Writer Reading Report Other Conflict NotFound Mishap Sent Upload Flow Headers Instant JsonElement".split(
    " ",
  ),
  ..."kotlin java wire app Names NamesConnection NamesAuth NamesCalls CallsKt NamesKt Tuple2 Url uRL a_b a-b aB".split(
    " ",
  ),
  "*/",
  "/*",
  "/** x */",
  "$x",
  "${System.exit(1)}",
  '"',
  '"""',
  "\\",
  "`",
  "``; fun x() = 1 //",
  "a\nb",
  "\u202egnp.exe",
  "1st",
  "_",
  "__",
  "-",
  "+1",
  "日付",
  "größe",
  "ｆｕｌｌ",
  "e\u0301",
  "🚢",
  "@Suppress",
  "<T>",
  "a.b",
  "a;b",
  "a:b",
  "[x]",
  "x".repeat(300),
];
