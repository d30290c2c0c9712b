types html jsp
embed script javascript
embed style css
structure markup
