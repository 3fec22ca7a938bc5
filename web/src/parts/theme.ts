import { useEffect } from 'react'

/** Puts the chosen sheet, light or dark, on the page. */
export function useTheme(theme: 'auto' | 'light' | 'dark') {
  useEffect(() => {
    const system = window.matchMedia('(prefers-color-scheme: dark)')
    const put = () => {
      const dark = theme === 'dark' || (theme === 'auto' && system.matches)
      document.documentElement.classList.toggle('dark', dark)
      document.documentElement.style.colorScheme = dark ? 'dark' : 'light'
    }
    put()
    system.addEventListener('change', put)
    return () => system.removeEventListener('change', put)
  }, [theme])
}
