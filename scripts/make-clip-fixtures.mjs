#!/usr/bin/env node
// Makes the small clips of tests/fixtures/clips with ffmpeg, and writes down what ffprobe and ffmpeg say of them: when each picture
// begins, and the MD5 of its pixels. To be run by hand when a clip is added; the tests need no ffmpeg.
import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'

const folder = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../tests/fixtures/clips')
const run = (program, args) => execFileSync(program, args, { maxBuffer: 1 << 28, stdio: ['ignore', 'pipe', 'inherit'] })
const source = (rate, frames, size = '96x64') => ['-f', 'lavfi', '-i', `testsrc2=size=${size}:rate=${rate},trim=end_frame=${frames}`]
const h264 = ['-c:v', 'libx264', '-pix_fmt', 'yuv420p', '-crf', '28']

/** `pixels`: what of it is compared. */
const clips = [
  { file: 'h264-bframes.mp4', args: [...source(30, 24), ...h264, '-bf', '2', '-g', '10'], pixels: 'yuv420p' },
  { file: 'h264-rate.mp4', args: [...source('30000/1001', 15), ...h264], pixels: 'yuv420p' },
  {
    file: 'h264-variable.mp4',
    args: [...source(30, 30), '-vf', "select='not(mod(n,3))+eq(mod(n,7),1)'", '-fps_mode', 'vfr', ...h264, '-bf', '0'],
    pixels: 'yuv420p',
  },
  { file: 'vp8.webm', args: [...source(25, 12), '-c:v', 'libvpx', '-b:v', '200k'], pixels: 'yuv420p' },
  { file: 'vp9.webm', args: [...source(25, 12), '-c:v', 'libvpx-vp9', '-b:v', '200k', '-pix_fmt', 'yuv420p'], pixels: 'yuv420p' },
  { file: 'av1.mp4', args: [...source(25, 12), '-c:v', 'libsvtav1', '-crf', '40', '-pix_fmt', 'yuv420p'], pixels: 'yuv420p' },
  {
    file: 'alpha.webm',
    args: [
      '-f',
      'lavfi',
      '-i',
      'testsrc2=size=32x24:rate=20,trim=end_frame=6,format=yuva420p,geq=lum=p(X\\,Y):cb=128:cr=128:a=8*X',
      '-c:v',
      'libvpx-vp9',
      '-lossless',
      '1',
      '-pix_fmt',
      'yuva420p',
    ],
    pixels: null,
  },
  { file: 'moving.gif', args: [...source(10, 6), '-loop', '0'], pixels: 'rgba' },
  { file: 'moving.apng', args: [...source(10, 6), '-f', 'apng', '-plays', '0'], pixels: 'rgba' },
  { file: 'moving.webp', args: [...source(10, 6), '-c:v', 'libwebp_anim', '-lossless', '1', '-loop', '0'], pixels: 'rgba' },
  { file: 'large.mp4', args: ['-f', 'lavfi', '-i', 'color=c=0x3a6ea5:size=2560x1440:rate=10,trim=end_frame=8', ...h264], pixels: null },
  { file: 'hevc.mp4', args: [...source(25, 5), '-c:v', 'libx265', '-pix_fmt', 'yuv420p', '-tag:v', 'hvc1', '-x265-params', 'log-level=none'], pixels: null },
]

mkdirSync(folder, { recursive: true })
for (const { file, args } of clips) run('ffmpeg', ['-v', 'error', '-y', '-bitexact', ...args, '-an', path.join(folder, file)])
run('ffmpeg', ['-v', 'error', '-y', '-i', path.join(folder, 'h264-bframes.mp4'), '-c', 'copy', '-metadata:s:v:0', 'rotate=90', path.join(folder, 'turned.mp4')])
// Its table of pictures comes first, as in films that are made for the web; what is cut off such a film is met late.
run('ffmpeg', ['-v', 'error', '-y', '-i', path.join(folder, 'h264-bframes.mp4'), '-c', 'copy', '-movflags', '+faststart', path.join(folder, 'web.mp4')])

const facts = {}
const md5 = (bytes) => createHash('md5').update(bytes).digest('hex')
for (const { file, pixels } of [...clips, { file: 'turned.mp4', pixels: 'yuv420p' }]) {
  const whole = path.join(folder, file)
  if (file.endsWith('.webp')) {
    // ffmpeg reads no animated WebP: libvips does, its pictures one below the other.
    const { delay, pageHeight, width } = await sharp(whole, { animated: true }).metadata()
    const stacked = await sharp(whole, { animated: true }).ensureAlpha().raw().toBuffer()
    const length = width * pageHeight * 4
    facts[file] = {
      startsUs: delay.map((_, i) => delay.slice(0, i).reduce((sum, ms) => sum + ms * 1000, 0)),
      md5: delay.map((_, i) => md5(stacked.subarray(i * length, (i + 1) * length))),
    }
    continue
  }
  const probe = JSON.parse(
    run('ffprobe', ['-v', 'error', '-select_streams', 'v:0', '-show_frames', '-show_entries', 'frame=pts_time,duration_time', '-of', 'json', whole]),
  )
  const startsUs = probe.frames.map((frame) => Math.round(Number(frame.pts_time) * 1e6))
  facts[file] = { startsUs }
  if (pixels === null) continue
  const stream = JSON.parse(run('ffprobe', ['-v', 'error', '-show_entries', 'stream=width,height', '-of', 'json', whole])).streams[0]
  const bytes = run('ffmpeg', ['-v', 'error', '-i', whole, '-fps_mode', 'passthrough', '-f', 'rawvideo', '-pix_fmt', pixels, '-'])
  const length = pixels === 'rgba' ? stream.width * stream.height * 4 : (stream.width * stream.height * 3) / 2
  facts[file].md5 = Array.from({ length: bytes.length / length }, (_, i) => md5(bytes.subarray(i * length, (i + 1) * length)))
}
writeFileSync(path.join(folder, 'facts.json'), `${JSON.stringify(facts, null, 1)}\n`)
