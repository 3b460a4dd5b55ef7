"""What goes out on paper: the set-up sheet, before and after, the owner's page, ticket and label; documents."""
