// Package crossing follows the line through chord changes.
//
// At a change from C7 to F7 the third E can fall a half step to E♭, the flat
// seventh of the new chord, or rise one to its root F; C can stay. [Between]
// finds every such move and where it lies under the hand; [Tie] joins one target
// per chord through a whole form, at the least movement.
package crossing
