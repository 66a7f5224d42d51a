package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"strings"

	"patientladder/core/approach"
	"patientladder/core/calendar"
	"patientladder/core/ladder"
	"patientladder/core/shelf"
)

// A Student is the least that is kept of one.
type Student struct {
	ID         string
	FirstName  string
	FamilyName string
	BirthYear  int
	BirthMonth int
	Instrument shelf.Instrument
	Slot       calendar.Slot
	Approach   approach.Approach
}

const studentColumns = `id, first_name, family_name, birth_year, birth_month, instrument, slot, approach`

func scanStudent(row interface{ Scan(...any) error }) (Student, error) {
	var st Student
	var slot, app []byte
	err := row.Scan(&st.ID, &st.FirstName, &st.FamilyName, &st.BirthYear, &st.BirthMonth, &st.Instrument, &slot, &app)
	if err != nil {
		return st, err
	}
	if err := json.Unmarshal(slot, &st.Slot); err != nil {
		return st, err
	}
	return st, json.Unmarshal(app, &st.Approach)
}

// Students returns the studio's students by first name.
func (s Studio) Students(ctx context.Context) ([]Student, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT `+studentColumns+` FROM students WHERE studio_id = ? ORDER BY first_name, family_name, id`, s.id)
	return collect(rows, err, scanStudent)
}

// Student returns one student.
func (s Studio) Student(ctx context.Context, id string) (Student, error) {
	st, err := scanStudent(s.db.QueryRowContext(ctx, `SELECT `+studentColumns+` FROM students WHERE studio_id = ? AND id = ?`, s.id, id))
	return st, classify(err)
}

// AddStudent saves a new student; one whose id is there already is left alone,
// so that saying it twice adds one.
func (s Studio) AddStudent(ctx context.Context, st Student) error {
	slot, err := json.Marshal(st.Slot)
	if err != nil {
		return err
	}
	app, err := json.Marshal(st.Approach)
	if err != nil {
		return err
	}
	_, err = s.db.ExecContext(ctx, `INSERT INTO students (studio_id, `+studentColumns+`) VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?) ON DUPLICATE KEY UPDATE id = id`,
		s.id, st.ID, st.FirstName, st.FamilyName, st.BirthYear, st.BirthMonth, st.Instrument, slot, app)
	return classify(err)
}

func scanItem(row interface{ Scan(...any) error }) (shelf.Item, error) {
	var it shelf.Item
	var detail []byte
	if err := row.Scan(&it.ID, &detail); err != nil {
		return it, err
	}
	id := it.ID
	err := json.Unmarshal(detail, &it)
	it.ID = id
	return it, err
}

// Items returns the whole shelf in order.
func (s Studio) Items(ctx context.Context) ([]shelf.Item, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT id, detail FROM items WHERE studio_id = ? ORDER BY place, id`, s.id)
	return collect(rows, err, scanItem)
}

// ItemsOf returns the items that a student's ladder names, by id.
func (s Studio) ItemsOf(ctx context.Context, facts []ladder.Fact) (map[string]shelf.Item, error) {
	out := map[string]shelf.Item{}
	args := []any{s.id}
	asked := map[string]bool{}
	for _, f := range facts {
		if f.Item != "" && !asked[f.Item] {
			asked[f.Item] = true
			args = append(args, f.Item)
		}
	}
	if len(args) == 1 {
		return out, nil
	}
	rows, err := s.db.QueryContext(ctx, `SELECT id, detail FROM items WHERE studio_id = ? AND id IN (?`+strings.Repeat(", ?", len(args)-2)+`)`, args...)
	list, err := collect(rows, err, scanItem)
	for _, it := range list {
		out[it.ID] = it
	}
	return out, err
}

// Item returns one item.
func (s Studio) Item(ctx context.Context, id string) (shelf.Item, error) {
	it, err := scanItem(s.db.QueryRowContext(ctx, `SELECT id, detail FROM items WHERE studio_id = ? AND id = ?`, s.id, id))
	return it, classify(err)
}

// A ScoreFile is a file as it came.
type ScoreFile struct {
	Name string
	Data []byte
}

// AddItem puts an item at the end of the shelf, with its score file if it has
// one. An item whose id is there already is left alone.
func (s Studio) AddItem(ctx context.Context, it shelf.Item, file *ScoreFile) error {
	detail, err := json.Marshal(it)
	if err != nil {
		return err
	}
	return s.inTx(ctx, func(tx *sql.Tx) error {
		_, err := tx.ExecContext(ctx, `INSERT INTO items (studio_id, id, place, detail)
			SELECT ?, ?, COALESCE(MAX(place), 0) + 1, ? FROM items WHERE studio_id = ?
			ON DUPLICATE KEY UPDATE id = items.id`, s.id, it.ID, detail, s.id)
		if err != nil || file == nil {
			return err
		}
		_, err = tx.ExecContext(ctx, `INSERT INTO scores (studio_id, item_id, file_name, data) VALUES (?, ?, ?, ?)
			ON DUPLICATE KEY UPDATE item_id = item_id`, s.id, it.ID, file.Name, file.Data)
		return err
	})
}

// Score returns an item's score file.
func (s Studio) Score(ctx context.Context, item string) (ScoreFile, error) {
	var f ScoreFile
	err := s.db.QueryRowContext(ctx, `SELECT file_name, data FROM scores WHERE studio_id = ? AND item_id = ?`, s.id, item).Scan(&f.Name, &f.Data)
	return f, classify(err)
}

// AddFacts saves facts of the studio's students, all or none; those already
// there change nothing. ErrNotFound when a student is not of this studio.
func (s Studio) AddFacts(ctx context.Context, facts []ladder.Fact) error {
	if len(facts) == 0 {
		return nil
	}
	var args []any
	for _, f := range facts {
		detail, err := json.Marshal(f)
		if err != nil {
			return err
		}
		args = append(args, s.id, f.ID, f.Student, f.At.UTC(), string(f.Kind), detail)
	}
	_, err := s.db.ExecContext(ctx, `INSERT INTO facts (studio_id, id, student_id, at, kind, detail) VALUES (?, ?, ?, ?, ?, ?)`+
		strings.Repeat(", (?, ?, ?, ?, ?, ?)", len(facts)-1)+` ON DUPLICATE KEY UPDATE id = facts.id`, args...)
	return classify(err)
}

// Facts returns a student's facts by time and id.
func (s Studio) Facts(ctx context.Context, student string) ([]ladder.Fact, error) {
	rows, err := s.db.QueryContext(ctx, `SELECT detail FROM facts WHERE studio_id = ? AND student_id = ? ORDER BY at, id`, s.id, student)
	return collect(rows, err, func(row interface{ Scan(...any) error }) (ladder.Fact, error) {
		var f ladder.Fact
		var detail []byte
		if err := row.Scan(&detail); err != nil {
			return f, err
		}
		return f, json.Unmarshal(detail, &f)
	})
}

// collect reads all rows of a query.
func collect[T any](rows *sql.Rows, err error, scan func(interface{ Scan(...any) error }) (T, error)) ([]T, error) {
	if err != nil {
		return nil, classify(err)
	}
	defer rows.Close()
	list := []T{}
	for rows.Next() {
		v, err := scan(rows)
		if err != nil {
			return nil, classify(err)
		}
		list = append(list, v)
	}
	return list, classify(rows.Err())
}
