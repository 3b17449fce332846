;; Reads a sample between its frames: what `readSlowly` of sampleReader.ts does, four taps at once, to the same bits.
;; `npm run wasm` makes sampleReaderWasm.ts of it.
;;
;; Memory, in bytes (sampleReader.ts has the same numbers):
;;       0  weights    128 rows of 12, f32
;;    6144  slopes     128 rows of 12, f32: by how much each weight differs in the next row
;;   12288  sound      3 times 128, f64: what was read
;;   15360  window     the frames around all places, f32
(module
  (import "sound" "memory" (memory 1))

  ;; count: places to read, at least 1. place: the first, in frames of the window. step: from one to the next. gain: how loud the first
  ;; is. decay: by which each is louder than the last. to: where the sound goes, in bytes. Returns the gain of what follows.
  (func (export "read")
    (param $count i32) (param $place f64) (param $step f64) (param $gain f64) (param $decay f64) (param $to i32)
    (result f64)
    (local $at i64) (local $apart i64) (local $end i32)
    (local $row i32) (local $frame i32) (local $along v128) (local $sum v128)
    ;; Places are whole numbers of 2^-32 frames: of these bits, from above, come frame, row of the table and the way to the next row.
    (local.set $at (i64.trunc_sat_f64_s (f64.mul (local.get $place) (f64.const 4294967296))))
    (local.set $apart (i64.trunc_sat_f64_s (f64.mul (local.get $step) (f64.const 4294967296))))
    (local.set $end (i32.add (local.get $to) (i32.shl (local.get $count) (i32.const 3))))
    (loop $next
      (local.set $frame (i32.and (i32.wrap_i64 (i64.shr_s (local.get $at) (i64.const 30))) (i32.const -4)))
      (local.set $row
        (i32.mul
          (i32.and (i32.wrap_i64 (i64.shr_u (local.get $at) (i64.const 25))) (i32.const 127))
          (i32.const 48)))
      (local.set $along
        (f32x4.mul
          (f32x4.splat (f32.convert_i32_s (i32.and (i32.wrap_i64 (local.get $at)) (i32.const 33554431))))
          (v128.const f32x4 0x1p-25 0x1p-25 0x1p-25 0x1p-25)))
      ;; Frames times weights, each of which lies between two of the table.
      (local.set $sum
        (f32x4.mul
          (v128.load offset=15360 (local.get $frame))
          (f32x4.add
            (v128.load (local.get $row))
            (f32x4.mul (local.get $along) (v128.load offset=6144 (local.get $row))))))
      (local.set $sum
        (f32x4.add (local.get $sum)
          (f32x4.mul
            (v128.load offset=15376 (local.get $frame))
            (f32x4.add
              (v128.load offset=16 (local.get $row))
              (f32x4.mul (local.get $along) (v128.load offset=6160 (local.get $row)))))))
      (local.set $sum
        (f32x4.add (local.get $sum)
          (f32x4.mul
            (v128.load offset=15392 (local.get $frame))
            (f32x4.add
              (v128.load offset=32 (local.get $row))
              (f32x4.mul (local.get $along) (v128.load offset=6176 (local.get $row)))))))
      ;; Lanes 0 and 1 with 2 and 3, then those two.
      (local.set $sum
        (f32x4.add (local.get $sum)
          (i8x16.shuffle 8 9 10 11 12 13 14 15 0 1 2 3 4 5 6 7 (local.get $sum) (local.get $sum))))
      (f64.store (local.get $to)
        (f64.mul
          (f64.promote_f32 (f32.add (f32x4.extract_lane 0 (local.get $sum)) (f32x4.extract_lane 1 (local.get $sum))))
          (local.get $gain)))
      (local.set $gain (f64.mul (local.get $gain) (local.get $decay)))
      (local.set $at (i64.add (local.get $at) (local.get $apart)))
      (local.set $to (i32.add (local.get $to) (i32.const 8)))
      (br_if $next (i32.lt_u (local.get $to) (local.get $end))))
    (local.get $gain)))
