/** The shells with completion. */
export const shells = ["bash", "zsh", "fish"] as const;

export type Shell = (typeof shells)[number];

/**
 * The script for each shell: it asks Rhema for words whenever the user completes a line, and uses file names if there
 * are none.
 */
export const completionScripts: Readonly<Record<Shell, string>> = {
  bash: `# Completion for rhema; put this into ~/.bashrc: eval "$(rhema completion bash)"
_rhema_words() {
  local IFS=$'\\n'
  COMPREPLY=($(rhema completion --at "$COMP_CWORD" -- "\${COMP_WORDS[@]}" 2>/dev/null))
}
complete -o default -F _rhema_words rhema
`,
  zsh: `# Completion for rhema; put this into ~/.zshrc, behind compinit: eval "$(rhema completion zsh)"
_rhema_words() {
  local -a found
  found=("\${(@f)$(rhema completion --at $((CURRENT - 1)) -- "\${words[@]}" 2>/dev/null)}")
  if [[ -n "\${found[1]}" ]]; then compadd -a found; else _files; fi
}
compdef _rhema_words rhema
`,
  fish: `# Completion for rhema; put this into ~/.config/fish/config.fish: rhema completion fish | source
function __rhema_words
  set -l before (commandline -opc)
  set -l found (rhema completion --at (count $before) -- $before (commandline -ct) 2>/dev/null)
  if test (count $found) -gt 0
    printf '%s\\n' $found
  else
    __fish_complete_path (commandline -ct)
  end
end
complete -c rhema -f -a '(__rhema_words)'
`,
};
