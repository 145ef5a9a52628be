import { expose } from 'comlink'
import { Engine } from './engine'

expose(new Engine())
