// Shows a form of Tobbin inside a page, in a frame that is as high as the form:
// <script src="https://…/embed.js" data-form="https://…/f/…" async></script>
;(() => {
  const script = document.currentScript
  const address = new URL(script.dataset.form, script.src)
  const frame = document.createElement('iframe')
  frame.src = address.href
  frame.title = script.dataset.title || 'Form'
  frame.style.cssText = 'width: 100%; border: 0; display: block; height: 600px'
  frame.allow = 'camera'
  window.addEventListener('message', ({ origin, source, data }) => {
    const isOwn = origin === address.origin && source === frame.contentWindow
    if (isOwn && data && data.tobbin === 'height') frame.style.height = `${Math.min(data.height, 30_000)}px`
  })
  script.after(frame)
})()
