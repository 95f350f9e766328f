package store

import "time"

// Shop is the one row of settings.
type Shop struct {
	ID        int `gorm:"primaryKey"`
	Doc       string
	Version   int
	UpdatedAt time.Time
}

// TableName names the table.
func (Shop) TableName() string { return "shop" }

// StockItem is a piece on the rack.
type StockItem struct {
	ID         string `gorm:"primaryKey"`
	Doc        string
	Version    int
	ArchivedAt *time.Time
	CreatedAt  time.Time
	UpdatedAt  time.Time
}

// Pattern is a design in the library; its documents are revisions.
type Pattern struct {
	ID         string `gorm:"primaryKey"`
	Name       string
	Head       int
	Version    int
	ArchivedAt *time.Time
	CreatedAt  time.Time
	UpdatedAt  time.Time
}

// PatternRow is a pattern with the document of its newest revision.
type PatternRow struct {
	Pattern
	Doc string
}

// PatternRevision is one state of a pattern.
type PatternRevision struct {
	PatternID string `gorm:"primaryKey"`
	N         int    `gorm:"primaryKey"`
	Doc       string
	CreatedAt time.Time
}

// Piece is a piece of work.
type Piece struct {
	ID         string `gorm:"primaryKey"`
	Doc        string
	Summary    string
	Version    int
	Cursor     int
	ArchivedAt *time.Time
	CreatedAt  time.Time
	UpdatedAt  time.Time
}

// PieceRow is a piece with what its history allows.
type PieceRow struct {
	Piece
	CanUndo bool
	CanRedo bool
}

// PieceEdit is one step of the history of a piece.
type PieceEdit struct {
	PieceID   string `gorm:"primaryKey"`
	Seq       int    `gorm:"primaryKey"`
	Doc       string
	Label     string
	CreatedAt time.Time
}

// PieceRevision is a named state of a piece.
type PieceRevision struct {
	PieceID   string `gorm:"primaryKey"`
	N         int    `gorm:"primaryKey"`
	Label     string
	Doc       string
	CreatedAt time.Time
}

// Cut is what a piece takes from the rack.
type Cut struct {
	ID        string `gorm:"primaryKey"`
	PieceID   string
	StockID   *string
	LengthMm  float64
	KerfMm    float64 // what the saw takes with it
	Role      string
	State     string
	CreatedAt time.Time
	UpdatedAt time.Time
}

// CutMade is what was cut from a piece of stock; rows are only added.
type CutMade struct {
	ID       int `gorm:"primaryKey"`
	StockID  string
	PieceID  string
	Name     string
	LengthMm float64
	At       time.Time
}

// TableName names the table.
func (CutMade) TableName() string { return "cuts_made" }

// Plan is a snapshot of a plan: the document that was planned (with its totals) and
// the version of the laws.
type Plan struct {
	PieceID   string `gorm:"primaryKey"`
	N         int    `gorm:"primaryKey"`
	Laws      int
	Request   string
	Result    string
	FrozenAt  *time.Time
	CreatedAt time.Time
}

// Picture is a photograph that an outline is traced over.
type Picture struct {
	ID        string `gorm:"primaryKey"`
	Mime      string
	WidthPx   int
	HeightPx  int
	Data      []byte
	CreatedAt time.Time
}

// Session is a piece at the fire, with its plan as it was frozen. Events counts them;
// Progress is what the first ProgressN of them came to.
type Session struct {
	ID        string `gorm:"primaryKey"`
	PieceID   string
	PlanN     int
	Laws      int
	Doc       string
	Events    int
	Progress  string
	ProgressN int
	CreatedAt time.Time
	UpdatedAt time.Time
}

// SessionEvent is one thing that happened; rows are only added.
type SessionEvent struct {
	SessionID string `gorm:"primaryKey"`
	ID        string `gorm:"primaryKey"`
	N         int
	Doc       string
	HeardAt   time.Time
}

// Timer is something that is waited for, of a piece or of none.
type Timer struct {
	ID        string `gorm:"primaryKey"`
	PieceID   *string
	Kind      string
	Label     string
	Seconds   float64
	StartedAt time.Time
	StoppedAt *time.Time
}

// Practised is an exercise as somebody did it, on a teacher's sheet.
type Practised struct {
	ID        string `gorm:"primaryKey"`
	Who       string
	Exercise  string
	Doc       string
	CreatedAt time.Time
	RemovedAt *time.Time
}

// TableName is the table of it.
func (Practised) TableName() string { return "practised" }

// Access is an instrument or a screen that may reach the shop. Of its key only the hash is kept.
type Access struct {
	ID        string `gorm:"primaryKey"`
	Kind      string
	Name      string
	Hash      string
	Bound     string // the hash of what the browser that it was given to says of itself
	CreatedAt time.Time
	SeenAt    *time.Time
	RevokedAt *time.Time
}

// TableName of it.
func (Access) TableName() string { return "access" }
