// Package store keeps what the player makes in one SQLite file.
//
// [Open] refuses a file that is not ours, is newer than the program or is
// locked, and leaves it as it was. Before a migration the file is copied aside.
// Deleting marks a row; [Store.RestoreChart] takes it back.
package store
