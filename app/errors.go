package app

import (
	"errors"
	"fmt"
	"time"
)

// Errors that callers tell apart.
var (
	// ErrNotFound is for an id that names nothing, or nothing any more.
	ErrNotFound = errors.New("not found")
	// ErrStale is for a change based on a revision that is not the newest.
	ErrStale = errors.New("the card has been changed elsewhere since")
	// ErrFull is for what could not be kept because the disk is full. Nothing was changed.
	ErrFull = errors.New("the disk is full")
	// ErrMissing is for files of sheets on which some pieces have no room; it wraps a
	// sentence that names them.
	ErrMissing = errors.New("pieces are missing")
	// ErrBusy is for a machine that somebody else is using; it wraps a sentence.
	ErrBusy = errors.New("busy")
	// ErrNothing is for undo at the beginning and redo at the end.
	ErrNothing = errors.New("there is nothing to undo or redo")
)

// Damaged is a card whose newest state is there and cannot be read: it was damaged, or
// written by a newer version. Last is the newest revision that can be read, of the time At;
// 0 if there is none.
type Damaged struct {
	Last int64
	At   time.Time
	Err  error
}

func (d *Damaged) Error() string {
	return fmt.Sprintf("the newest state of the card cannot be read: %v", d.Err)
}

// Unwrap is the error of reading.
func (d *Damaged) Unwrap() error { return d.Err }

// sentenceError is one of the errors above with a sentence of its own.
type sentenceError struct {
	is  error
	why string
}

func (e *sentenceError) Error() string { return e.why }

// Unwrap is the error that the sentence is about.
func (e *sentenceError) Unwrap() error { return e.is }

// AwayError says that a device does not answer; Why is a sentence for the person.
type AwayError struct {
	Why string
	Err error
}

// Error implements error.
func (e *AwayError) Error() string { return e.Why }

// Unwrap returns the error that the device failed with.
func (e *AwayError) Unwrap() error { return e.Err }
