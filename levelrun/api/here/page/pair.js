'use strict'
const code = document.getElementById('code')
const told = document.getElementById('told')
const button = document.querySelector('button')
const from = decodeURIComponent(location.hash.slice(1))
if (/^[A-Za-z]{6}$/.test(from)) code.value = from.toUpperCase()
history.replaceState(null, '', location.pathname + location.search)
const next = new URLSearchParams(location.search).get('to') || '/'
document.getElementById('form').addEventListener('submit', async (event) => {
  event.preventDefault()
  button.disabled = true
  told.textContent = ''
  try {
    const answer = await fetch('/api/pair', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ code: code.value, name: document.getElementById('name').value }),
    })
    if (answer.ok) {
      location.assign(next.startsWith('/') && !next.startsWith('//') && !next.startsWith('/\\') ? next : '/')
      return
    }
    const problem = await answer.json().catch(() => ({}))
    told.textContent = problem.detail || 'Not paired. Try again.'
    const wait = Number(answer.headers.get('Retry-After') || 0)
    setTimeout(() => (button.disabled = false), wait * 1000)
  } catch {
    told.textContent = 'The laptop is not answering.'
    button.disabled = false
  }
})
