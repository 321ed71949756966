import { useSyncExternalStore } from 'react'

export type ThemeName = 'light' | 'dark'
const KEY = 'border.theme'
const listeners = new Set<() => void>()

/** The person's choice, else what the system prefers. */
function currentTheme(): ThemeName {
  const chosen = localStorage.getItem(KEY)
  if (chosen === 'light' || chosen === 'dark') return chosen
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

export function applyTheme(name: ThemeName = currentTheme()): void {
  document.documentElement.dataset.theme = name
}

export function chooseTheme(name: ThemeName): void {
  localStorage.setItem(KEY, name)
  applyTheme(name)
  listeners.forEach((tell) => tell())
}

export function useTheme(): ThemeName {
  return useSyncExternalStore((tell) => {
    listeners.add(tell)
    return () => listeners.delete(tell)
  }, currentTheme)
}
