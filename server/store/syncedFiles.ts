import { fsyncSync } from 'node:fs'
import { PGlite } from '@electric-sql/pglite'
import { NodeFS } from '@electric-sql/pglite/nodefs'

/** Error numbers as the database, which is compiled for WebAssembly, knows them (WASI): input or output failed. */
const EIO = 29

/**
 * The files of the embedded database, written to the disk when PostgreSQL asks for it. The library's own let that pass, and start it without
 * asking: what was acknowledged was then lost when the power went.
 */
class SyncedFiles extends NodeFS {
  override async init(...[lite, options]: Parameters<NodeFS['init']>): ReturnType<NodeFS['init']> {
    const made = await super.init(lite, options)
    const { preRun = [] } = made.emscriptenOpts
    const patch = (module: NodeModule) => {
      writeOut(module)
      keepPrivate(module)
    }
    return { emscriptenOpts: { ...made.emscriptenOpts, preRun: [...[preRun].flat(), patch] } }
  }
}

/** Lets a file be written to the disk when PostgreSQL asks for it. */
function writeOut({ NODEFS, FS }: NodeModule) {
  NODEFS.stream_ops.fsync = ({ nfd }) => {
    try {
      fsyncSync(nfd)
      return 0
    } catch {
      throw new FS.ErrnoError(EIO)
    }
  }
}

/** Files and folders of the database are their owner's alone. */
function keepPrivate({ NODEFS: { node_ops } }: NodeModule) {
  const { mknod, setattr } = node_ops
  node_ops.mknod = (parent, name, mode, device) => mknod(parent, name, mode & OWNER_ONLY, device)
  node_ops.setattr = (node, attributes) =>
    setattr(
      node,
      attributes.mode === undefined ? attributes : { ...attributes, mode: attributes.mode & OWNER_ONLY },
    )
}
const OWNER_ONLY = ~0o077

/** What is used of the compiled module. */
interface NodeModule {
  NODEFS: {
    stream_ops: { fsync?: (stream: { nfd: number }) => number }
    node_ops: {
      mknod: (parent: unknown, name: string, mode: number, device: number) => unknown
      setattr: (node: unknown, attributes: { mode?: number }) => void
    }
  }
  FS: { ErrnoError: new (code: number) => Error }
}

/** The embedded database of a folder; what it acknowledges is on the disk. */
export const openLite = (folder: string): PGlite =>
  new PGlite({
    fs: new SyncedFiles(folder),
    startParams: [
      // “-F” would keep PostgreSQL from asking for anything to be written out.
      ...PGlite.defaultStartParams.filter(p => p !== '-F'),
      '-c',
      'wal_sync_method=fsync',
    ],
  })
