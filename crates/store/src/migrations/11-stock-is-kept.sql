-- Grows when the stock of any site changes, or what its figures lean on, so that copies notice.
INSERT INTO stamp (of, value) VALUES ('stock', 1);

CREATE TRIGGER site_added_moves_stock AFTER INSERT ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_changed_moves_stock AFTER UPDATE ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_gone_moves_stock AFTER DELETE ON site
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_added_moves_stock AFTER INSERT ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_changed_moves_stock AFTER UPDATE ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER site_month_gone_moves_stock AFTER DELETE ON site_month
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_added_moves_stock AFTER INSERT ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_changed_moves_stock AFTER UPDATE ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER measure_gone_moves_stock AFTER DELETE ON measure
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_added_moves_stock AFTER INSERT ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_changed_moves_stock AFTER UPDATE ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_gone_moves_stock AFTER DELETE ON lot
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_added_moves_stock AFTER INSERT ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_changed_moves_stock AFTER UPDATE ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER lot_stock_gone_moves_stock AFTER DELETE ON lot_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_added_moves_stock AFTER INSERT ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_changed_moves_stock AFTER UPDATE ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
CREATE TRIGGER field_test_gone_moves_stock AFTER DELETE ON field_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'stock'; END;
