package wire

private val loopback =
    Regex("^(https?://)(localhost|127(?:\\.\\d{1,3}){3}|\\[::1\\]|0\\.0\\.0\\.0)(?=[:/?#]|$)", RegexOption.IGNORE_CASE)

/**
 * The same address as the Android emulator sees it: 10.0.2.2 is the computer that runs the emulator. An address of
 * another computer stays as it is. For debug builds only.
 */
public fun onEmulator(url: String): String = loopback.replace(url) { "${it.groupValues[1]}10.0.2.2" }
