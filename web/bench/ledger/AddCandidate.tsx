import type { Profile } from '@sable/core/shelf/profile'
import { groups } from 'd3-array'
import { Plus } from 'lucide-react'
import { Fragment } from 'react'
import { useBench } from '../../desk/bench'
import { Button } from '../../ui/Button'
import { Menu, MenuItem, MenuLabel, MenuSeparator } from '../../ui/Menu'

/** A new column: an empty one, or one from a profile of the shelf. */
export function AddCandidate({ onEmpty, onProfile }: { onEmpty: () => void; onProfile: (profile: Profile) => void }) {
  const { shelf } = useBench()
  const profiles = shelf.profiles.filter(({ archived }) => !archived)
  const families = groups(profiles, ({ family }) => family)
  const face = (
    <>
      <Plus className="size-3.5" aria-hidden /> Candidate
    </>
  )
  if (profiles.length === 0) return <Button onClick={onEmpty}>{face}</Button>
  return (
    <Menu align="end" trigger={<Button>{face}</Button>}>
      <MenuItem onSelect={onEmpty} hint="all from the shelf">
        Empty
      </MenuItem>
      <MenuSeparator />
      {families.map(([family, own]) => (
        <Fragment key={family}>
          <MenuLabel>{family === '' ? 'From a profile' : `Profiles: ${family}`}</MenuLabel>
          {own.map((profile) => (
            <MenuItem key={profile.key} onSelect={() => onProfile(profile)} hint={profile.tags.join(', ')}>
              <span className="max-w-60 truncate">{profile.name}</span>
            </MenuItem>
          ))}
        </Fragment>
      ))}
    </Menu>
  )
}
