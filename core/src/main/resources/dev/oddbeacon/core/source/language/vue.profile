types vue svelte
embed script javascript
embed lang=ts typescript
embed lang=tsx typescript
embed style css
embed lang=scss sass
embed lang=sass sass
embed lang=less sass
structure markup
