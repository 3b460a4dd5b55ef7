"""A document as it goes to the owner, from what was kept when it was issued; nothing is computed again."""

from __future__ import annotations

from fidicula.documents.paper.model import Block, Grid, Heading, Paper, Points, Text
from fidicula.domain.billing import Document
from fidicula.words import billing as say
from fidicula.words import papers as on_papers
from fidicula.words.numbers import money, tax_rate


def document_paper(document: Document, cancelled: Document | None = None) -> Paper:
    """cancelled : the invoice that a credit note takes back."""
    content, currency = document.content, document.currency
    rows = [
        [f"{line.label}: {line.detail}", tax_rate(line.rate), money(line.amount, currency)] for line in content.lines
    ]
    sums = [[say.NET, "", money(content.net, currency)]]
    if content.discount:
        sums.append([say.DISCOUNT, "", money(-content.discount, currency)])
    sums += [
        [say.tax_of(tax_rate(one.rate), money(one.base, currency)), "", money(one.tax, currency)]
        for one in content.taxes
    ]
    sums.append([say.TOTAL, "", money(content.total, currency)])
    strong = [len(rows) + len(sums) - 1]
    if content.paid:
        sums += [
            [say.PAID_BEFORE, "", money(-min(content.paid, content.total), currency)],
            [say.TO_PAY, "", money(max(content.total - content.paid, content.total * 0), currency)],
        ]
        strong.append(len(rows) + len(sums) - 1)
    blocks: list[Block] = [
        Heading(say.FROM),
        *(Text(line) for line in content.seller),
        *([Text(say.tax_number(content.tax_number))] if content.tax_number else []),
        Heading(say.TO),
        *(Text(line) for line in content.buyer),
        Grid(say.HEADS, [*rows, *sums], right=(1, 2), widths=(5, 1, 1.4), strong=strong),
        *([Text(say.cancels(cancelled.code, cancelled.issued_on, content.reason))] if cancelled is not None else []),
        *([Text(say.due(document.kind, document.due_on), strong=True)] if document.due_on is not None else []),
        *([Points(list(content.promises))] if content.promises else []),
    ]
    seller, title = content.seller[0] if content.seller else "", say.TITLES[document.kind]
    return Paper(
        kind=document.kind,
        title=title,
        subject=[say.number_and_date(document.code, document.issued_on), *content.about],
        blocks=blocks,
        foot=on_papers.foot(seller, document.code, title),
        file=f"{document.code} {title.lower()}",
    )
