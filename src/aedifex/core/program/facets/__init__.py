"""What a language offers, typed: one page a facet, and what holds where the question never comes up (``defaults``)."""
