;; The rule of slots.ts for HTP, sixteen slots at a time.
;;
;; Memory, in bytes: 0 levels, 512 owners (read, then written), 1024 a mark for each source, and from
;; 1280 on, for each source, 512 levels and 512 priorities: one more than the priority, or 0 where the
;; source does not control the slot.
(module
  (memory (export "memory") 5)

  ;; Priorities of single slots, as they travel, become those above: 0 stays 0, others are one more, and
  ;; above 200 there is none.
  (func (export "raise") (param $source i32)
    (local $at i32) (local $end i32) (local $own v128)
    (local.set $at (i32.add (i32.const 1792) (i32.shl (local.get $source) (i32.const 10))))
    (local.set $end (i32.add (local.get $at) (i32.const 512)))
    (loop $next
      (local.set $own (i8x16.min_u (v128.load (local.get $at)) (i8x16.splat (i32.const 200))))
      ;; What is not 0 gives −1 in each such byte.
      (v128.store (local.get $at)
        (i8x16.sub (local.get $own) (i8x16.ne (local.get $own) (v128.const i64x2 0 0))))
      (local.set $at (i32.add (local.get $at) (i32.const 16)))
      (br_if $next (i32.lt_u (local.get $at) (local.get $end)))))

  (func (export "merge") (param $sources i32)
    (local $slot i32) (local $at i32) (local $end i32) (local $mark i32)
    (local $top v128) (local $level v128) (local $owner v128) (local $before v128) (local $stays v128)
    (local $here v128) (local $marks v128)
    (loop $slots
      (local.set $end
        (i32.add (i32.add (local.get $slot) (i32.const 1280)) (i32.shl (local.get $sources) (i32.const 10))))

      ;; The highest priority that anybody has.
      (local.set $top (v128.const i64x2 0 0))
      (local.set $at (i32.add (local.get $slot) (i32.const 1280)))
      (loop $next
        (local.set $top (i8x16.max_u (local.get $top) (v128.load offset=512 (local.get $at))))
        (local.set $at (i32.add (local.get $at) (i32.const 1024)))
        (br_if $next (i32.lt_u (local.get $at) (local.get $end))))

      ;; The highest level at it.
      (local.set $level (v128.const i64x2 0 0))
      (local.set $at (i32.add (local.get $slot) (i32.const 1280)))
      (loop $next
        (local.set $level
          (i8x16.max_u (local.get $level)
            (v128.and (v128.load (local.get $at))
              (i8x16.eq (local.get $top) (v128.load offset=512 (local.get $at))))))
        (local.set $at (i32.add (local.get $at) (i32.const 1024)))
        (br_if $next (i32.lt_u (local.get $at) (local.get $end))))

      ;; Who holds it: the owner so far if he does, else the first; from the last to the first.
      (local.set $before (v128.load offset=512 (local.get $slot)))
      (local.set $owner (v128.const i64x2 -1 -1))
      (local.set $stays (v128.const i64x2 0 0))
      (local.set $mark (i32.add (local.get $sources) (i32.const 1023)))
      (loop $next
        (local.set $at (i32.sub (local.get $at) (i32.const 1024)))
        (local.set $here
          (v128.and
            (i8x16.eq (local.get $top) (v128.load offset=512 (local.get $at)))
            (i8x16.eq (local.get $level) (v128.load (local.get $at)))))
        (local.set $marks (v128.load8_splat (local.get $mark)))
        (local.set $owner (v128.bitselect (local.get $marks) (local.get $owner) (local.get $here)))
        (local.set $stays
          (v128.or (local.get $stays)
            (v128.and (local.get $here) (i8x16.eq (local.get $before) (local.get $marks)))))
        (local.set $mark (i32.sub (local.get $mark) (i32.const 1)))
        (br_if $next (i32.ge_u (local.get $mark) (i32.const 1024))))
      (local.set $owner (v128.bitselect (local.get $before) (local.get $owner) (local.get $stays)))

      ;; Where nobody has a priority there is neither level nor owner.
      (local.set $here (i8x16.eq (local.get $top) (v128.const i64x2 0 0)))
      (v128.store (local.get $slot) (v128.andnot (local.get $level) (local.get $here)))
      (v128.store offset=512 (local.get $slot) (v128.or (local.get $owner) (local.get $here)))

      (local.set $slot (i32.add (local.get $slot) (i32.const 16)))
      (br_if $slots (i32.lt_u (local.get $slot) (i32.const 512))))))
