import { useEffect } from 'react'

/** Sets the sheet light or dark, as chosen or as the system has it; on paper it is always light. */
export function useTheme(theme: 'auto' | 'light' | 'dark') {
  useEffect(() => {
    const system = window.matchMedia('(prefers-color-scheme: dark)')
    const paper = window.matchMedia('print')
    const set = () => {
      const dark = !paper.matches && (theme === 'dark' || (theme === 'auto' && system.matches))
      document.documentElement.classList.toggle('dark', dark)
      document.documentElement.style.colorScheme = dark ? 'dark' : 'light'
    }
    set()
    const watched = [system, paper]
    watched.forEach((m) => m.addEventListener('change', set))
    return () => watched.forEach((m) => m.removeEventListener('change', set))
  }, [theme])
}
