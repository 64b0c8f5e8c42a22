import { create } from 'zustand'

export type Theme = 'dark' | 'light'

const KEY = 'sable.theme'

const preferred = (): Theme => {
  const chosen = localStorage.getItem(KEY)
  if (chosen === 'dark' || chosen === 'light') return chosen
  return matchMedia('(prefers-color-scheme: light)').matches ? 'light' : 'dark'
}

export const useTheme = create<{ theme: Theme }>()(() => ({ theme: preferred() }))

const show = (theme: Theme): void => {
  document.documentElement.dataset.theme = theme
}

show(useTheme.getState().theme)

export function toggleTheme(): void {
  const theme = useTheme.getState().theme === 'dark' ? 'light' : 'dark'
  localStorage.setItem(KEY, theme)
  useTheme.setState({ theme })
  show(theme)
}
