"""What pieces are made of: vessels, stems, netting, frogs, supplies, water and air."""
