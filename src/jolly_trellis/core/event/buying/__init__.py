"""What is bought, packed and kept track of.

Asks needs, purchases and the roll; answers lists, orders and the ledger of stems.
"""
