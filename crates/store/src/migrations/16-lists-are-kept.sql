-- Grow when a batch, or a heap, of any site changes, so that copies of their lists notice.
INSERT INTO stamp (of, value) VALUES ('batch', 1), ('heap', 1);

CREATE TRIGGER batch_added_moves_batch AFTER INSERT ON batch
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_changed_moves_batch AFTER UPDATE ON batch
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_gone_moves_batch AFTER DELETE ON batch
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_added_moves_batch AFTER INSERT ON batch_item
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_changed_moves_batch AFTER UPDATE ON batch_item
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_gone_moves_batch AFTER DELETE ON batch_item
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_test_added_moves_batch AFTER INSERT ON batch_item_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_test_changed_moves_batch AFTER UPDATE ON batch_item_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_item_test_gone_moves_batch AFTER DELETE ON batch_item_test
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_stock_added_moves_batch AFTER INSERT ON batch_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_stock_changed_moves_batch AFTER UPDATE ON batch_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_stock_gone_moves_batch AFTER DELETE ON batch_stock
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_done_added_moves_batch AFTER INSERT ON batch_done
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_done_changed_moves_batch AFTER UPDATE ON batch_done
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;
CREATE TRIGGER batch_done_gone_moves_batch AFTER DELETE ON batch_done
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'batch'; END;

CREATE TRIGGER heap_added_moves_heap AFTER INSERT ON heap
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'heap'; END;
CREATE TRIGGER heap_changed_moves_heap AFTER UPDATE ON heap
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'heap'; END;
CREATE TRIGGER heap_gone_moves_heap AFTER DELETE ON heap
BEGIN UPDATE stamp SET value = value + 1 WHERE of = 'heap'; END;
