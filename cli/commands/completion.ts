import { InputError } from '@sable/core/units/errors'
import type { Command } from 'commander'
import { print } from '../report'

const shells = ['bash', 'zsh', 'fish'] as const

/** Lets a shell complete commands and options: what it prints is read by the shell when it starts. */
export function addCompletion(program: Command): void {
  program
    .command('completion')
    .description('what lets a shell complete commands and options: bash, zsh or fish')
    .argument('<shell>')
    .action((shell: string) => {
      const known = shells.find((one) => one === shell)
      if (!known)
        throw new InputError('shell-unknown', `There is no completion for "${shell}".`, 'completion', `Take one of ${shells.join(', ')}.`)
      print(scripts[known](wordsOf(program)))
    })
}

/** Options of each command, and the commands themselves under the empty name. */
function wordsOf(program: Command): ReadonlyMap<string, readonly string[]> {
  const commands = program.commands.filter((command) => command.name() !== 'completion')
  const options = (command: Command): string[] => command.options.map(({ long }) => long ?? '').filter((long) => long !== '')
  return new Map([
    ['', [...commands.map((command) => command.name()), ...options(program)]],
    ...commands.map((command) => [command.name(), [...options(command), ...options(program)]] as const),
  ])
}

type Words = ReadonlyMap<string, readonly string[]>

const bash = (words: Words): string =>
  [
    '_sable() {',
    '  local words COMP_COMMAND="$(echo $COMP_LINE | cut -d" " -f2)"',
    '  case "$COMP_COMMAND" in',
    ...[...words].filter(([name]) => name !== '').map(([name, own]) => `    ${name}) words="${own.join(' ')}" ;;`),
    `    *) words="${words.get('')!.join(' ')}" ;;`,
    '  esac',
    '  COMPREPLY=($(compgen -W "$words" -- "$2"))',
    '}',
    'complete -o default -F _sable sable',
  ].join('\n')

const scripts: Readonly<Record<(typeof shells)[number], (words: Words) => string>> = {
  bash,
  zsh: (words) => ['autoload -U +X bashcompinit && bashcompinit', bash(words)].join('\n'),
  fish: (words) =>
    [
      `complete -c sable -n __fish_use_subcommand -f -a "${words
        .get('')!
        .filter((word) => !word.startsWith('--'))
        .join(' ')}"`,
      ...[...words].flatMap(([name, own]) =>
        name === '' ? [] : own.map((option) => `complete -c sable -n "__fish_seen_subcommand_from ${name}" -l ${option.slice(2)}`),
      ),
    ].join('\n'),
}
