-- A write to the stores names the revision it is based on, so whatever changes in them counts: vessels and remnants did not.
CREATE TRIGGER vessel_insert AFTER INSERT ON vessel BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
CREATE TRIGGER vessel_update AFTER UPDATE ON vessel BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
CREATE TRIGGER vessel_delete AFTER DELETE ON vessel BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
CREATE TRIGGER remnant_insert AFTER INSERT ON remnant BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
CREATE TRIGGER remnant_update AFTER UPDATE ON remnant BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
CREATE TRIGGER remnant_delete AFTER DELETE ON remnant BEGIN
    UPDATE stock_revision SET revision = revision + 1;
END;
