import type { Shelf } from '@sable/contract/shelf'
import { lookBack } from '@sable/core/log/lookBack'
import type { Profile } from '@sable/core/shelf/profile'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { printsQuery } from '../api/prints'
import { Button } from '../ui/Button'
import { CarrySheet } from './CarrySheet'
import { ProfilesBeside } from './ProfilesBeside'

/** What can be done with a profile of the library: carried to another material, held beside another one, printed; and how its prints came out. */
export function ProfilePanel({ profile, shelf, onKeep }: { profile: Profile; shelf: Shelf; onKeep: (profile: Profile) => void }) {
  const [open, setOpen] = useState<'carry' | 'beside'>()
  const from = shelf.profiles.find(({ key }) => key === profile.carriedFrom)
  return (
    <section aria-label="Profile" className="flex flex-wrap items-center gap-x-3 gap-y-2 border-b border-line pb-3 text-[12.5px]">
      <Button onClick={() => setOpen('carry')}>Carry to another material …</Button>
      <Button onClick={() => setOpen('beside')}>Beside another …</Button>
      <Link to={`/shelf/profiles/${profile.key}/sheet`} className="text-muted underline decoration-line underline-offset-2">
        page to print
      </Link>
      {from && (
        <span className="text-muted">
          carried from{' '}
          <Link to={`/shelf/profiles/${from.key}`} className="underline decoration-line underline-offset-2">
            {from.name}
          </Link>
        </span>
      )}
      <div className="flex-1" />
      <Prints profile={profile.name} />
      {open === 'carry' && <CarrySheet profile={profile} shelf={shelf} onKeep={onKeep} onClose={() => setOpen(undefined)} />}
      {open === 'beside' && <ProfilesBeside profile={profile} shelf={shelf} onClose={() => setOpen(undefined)} />}
    </section>
  )
}

/** As many as are looked back upon. */
const LATEST = 200

/** How prints by a column of this name came out. */
function Prints({ profile }: { profile: string }) {
  const { data } = useQuery(printsQuery({ profile, limit: LATEST }))
  const [group] = lookBack(data?.prints ?? [], () => profile)
  if (!group) return <span className="text-muted">no prints of it yet</span>
  return (
    <Link to={`/log?profile=${encodeURIComponent(profile)}`} className="figure text-muted underline decoration-line underline-offset-2">
      {group.prints} {group.prints === 1 ? 'print' : 'prints'}, {group.success.good} of use
      {group.time !== undefined && `, time ${group.time.toFixed(2)} × foretold`}
    </Link>
  )
}
