"""From envelope, form and recipe to placed stems; one file per form."""
