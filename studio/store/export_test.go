package store

import "fmt"

// LimitPages makes the database as full as a full disk does: it may have n pages at most, or as many as it has.
func (s *Store) LimitPages(n int) error {
	sql, err := s.db.DB()
	if err != nil {
		return err
	}
	sql.SetMaxOpenConns(1) // the limit belongs to a connection
	sql.SetMaxIdleConns(1)
	_, err = sql.Exec(fmt.Sprint("PRAGMA max_page_count = ", n))
	return err
}
